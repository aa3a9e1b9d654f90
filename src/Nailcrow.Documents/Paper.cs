using SkiaSharp;

namespace Nailcrow.Documents;

/// <summary>Sheets of A4 that are filled from the top; a block that does not fit begins the next one.</summary>
internal sealed class Paper : IDisposable
{
    // A4 (ISO 216) in points of 1/72 inch.
    public const float Width = 595;
    public const float Height = 842;
    public const float Margin = 42;
    private const float Foot = 26;
    private const float LineHeight = 1.28f;

    private readonly SKDocument _document;
    private readonly Action<Paper, int> _foot;
    private SKCanvas? _canvas;
    private bool _atFoot;

    public Paper(Stream into, string title, DateTimeOffset made, Action<Paper, int> foot)
    {
        _foot = foot;
        _document = PdfFile.Into(into, title, made);
        Turn();
    }

    public SKCanvas Canvas => _canvas ?? throw new ObjectDisposedException(nameof(Paper));

    /// <summary>How far down the column is filled.</summary>
    public float Y { get; set; }

    private const float Gap = 18;
    private int _columns = 1;
    private int _column;
    private float _columnTop;

    /// <summary>Where the column begins that is filled now.</summary>
    public float Left => Margin + _column * (ColumnWidth + Gap);

    public float ColumnWidth => (Inner - (_columns - 1) * Gap) / _columns;

    /// <summary>From here down, and on the pages that follow, in so many columns.</summary>
    public void InColumns(int columns) => (_columns, _column, _columnTop) = (columns, 0, Y);

    public int Page { get; private set; }

    public static float Inner => Width - 2 * Margin;

    /// <summary>Begins the next column, or turns the page, where less than this is left.</summary>
    public void Need(float height)
    {
        if (Y + height <= Height - Margin - Foot)
            return;
        if (_column + 1 < _columns)
            (_column, Y) = (_column + 1, _columnTop);
        else
            Turn();
    }

    /// <summary>Boxes to tick one after the other, each with its words, in as many lines as they take.</summary>
    public void Boxes(IEnumerable<string> words, SKFont font, float x, float width)
    {
        foreach (var line in BoxLines(words, font, width))
        {
            Y += font.Size * 1.5f;
            foreach (var (text, at) in line)
            {
                Box(x + at, Y - font.Size * 0.85f, font.Size * 0.9f);
                using var ink = new SKPaint { Color = SKColors.Black, IsAntialias = true };
                Canvas.DrawText(text, x + at + font.Size * 1.35f, Y, font, ink);
            }
        }
    }

    public static float HeightOfBoxes(IEnumerable<string> words, SKFont font, float width) =>
        BoxLines(words, font, width).Count * font.Size * 1.5f;

    private static List<List<(string Text, float At)>> BoxLines(IEnumerable<string> words, SKFont font, float width)
    {
        var lines = new List<List<(string, float)>>();
        var at = 0f;
        foreach (var text in words)
        {
            var wide = font.Size * 1.35f + font.MeasureText(text) + font.Size;
            if (lines.Count == 0 || at + wide > width)
                (lines, at) = ([.. lines, []], 0);
            lines[^1].Add((text, at));
            at += wide;
        }
        return lines;
    }

    /// <summary>A text in as many lines as it takes; where it ended is <see cref="Y"/>.</summary>
    public void Text(string text, SKFont font, float x, float width, SKColor? colour = null)
    {
        using var ink = new SKPaint { Color = colour ?? SKColors.Black, IsAntialias = true };
        foreach (var line in Wrapping.Lines(text, font, width))
        {
            if (!_atFoot)
            {
                var left = Left;
                Need(font.Size * LineHeight); // a text that is longer than what is left goes on where there is room
                x += Left - left;
            }
            Y += font.Size * LineHeight;
            Canvas.DrawText(line, x, Y, font, ink);
        }
    }

    public static float HeightOf(string text, SKFont font, float width) =>
        Wrapping.Lines(text, font, width).Count() * font.Size * LineHeight;

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
        (_column, Y, _columnTop) = (0, Margin, Margin);
    }

    private void EndPage()
    {
        if (_canvas is null)
            return;
        Y = Height - Margin - 14;
        _atFoot = true;
        _foot(this, Page);
        _atFoot = false;
        _document.EndPage();
        _canvas = null;
    }
}
