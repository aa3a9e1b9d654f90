using SkiaSharp;

namespace Nailcrow.Documents;

/// <summary>Sheets of A4 that are filled from the top; a block that does not fit begins the next one.</summary>
internal sealed class Paper : IDisposable
{
    // A4 (ISO 216) in points of 1/72 inch.
    public const float Width = 595;
    public const float Height = 842;
    public const float Margin = 42;
    private const float Foot = 46;

    private readonly SKDocument _document;
    private readonly Action<Paper, int> _foot;
    private SKCanvas? _canvas;

    public Paper(Stream into, string title, DateTimeOffset made, Action<Paper, int> foot)
    {
        _foot = foot;
        _document = SKDocument.CreatePdf(
            into,
            new SKDocumentPdfMetadata
            {
                Title = title,
                Creator = "Nailcrow",
                Producer = "Nailcrow",
                Creation = made.UtcDateTime,
                Modified = made.UtcDateTime,
            }
        );
        Turn();
    }

    public SKCanvas Canvas => _canvas ?? throw new ObjectDisposedException(nameof(Paper));

    /// <summary>How far down the page is filled.</summary>
    public float Y { get; set; }

    public int Page { get; private set; }

    public static float Inner => Width - 2 * Margin;

    /// <summary>Turns the page where less than this is left of it.</summary>
    public void Need(float height)
    {
        if (Y + height > Height - Margin - Foot)
            Turn();
    }

    /// <summary>A text in as many lines as it takes; where it ended is <see cref="Y"/>.</summary>
    public void Text(string text, SKFont font, float x, float width, SKColor? colour = null)
    {
        using var ink = new SKPaint { Color = colour ?? SKColors.Black, IsAntialias = true };
        foreach (var line in Lines(text, font, width))
        {
            Y += font.Size * 1.28f;
            Canvas.DrawText(line, x, Y, font, ink);
        }
    }

    public static float HeightOf(string text, SKFont font, float width) => Lines(text, font, width).Count() * font.Size * 1.28f;

    public void Line(float x, float y, float width, float thick = 0.7f)
    {
        using var ink = new SKPaint { Color = SKColors.Black, StrokeWidth = thick };
        Canvas.DrawLine(x, y, x + width, y, ink);
    }

    public void Box(float x, float y, float side)
    {
        using var ink = new SKPaint
        {
            Color = SKColors.Black,
            StrokeWidth = 1,
            Style = SKPaintStyle.Stroke,
        };
        Canvas.DrawRect(x, y, side, side, ink);
    }

    public void Dispose()
    {
        EndPage();
        _document.Close();
        _document.Dispose();
    }

    private void Turn()
    {
        EndPage();
        Page++;
        _canvas = _document.BeginPage(Width, Height);
        Y = Margin;
    }

    private void EndPage()
    {
        if (_canvas is null)
            return;
        Y = Height - Margin - 14;
        _foot(this, Page);
        _document.EndPage();
        _canvas = null;
    }

    private static IEnumerable<string> Lines(string text, SKFont font, float width)
    {
        var line = "";
        foreach (var word in text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var longer = line.Length == 0 ? word : $"{line} {word}";
            if (line.Length > 0 && font.MeasureText(longer) > width)
            {
                yield return line;
                line = word;
            }
            else
                line = longer;
        }
        if (line.Length > 0)
            yield return line;
    }
}
