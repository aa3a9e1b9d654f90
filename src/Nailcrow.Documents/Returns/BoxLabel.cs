using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Tickets;
using SkiaSharp;

namespace Nailcrow.Documents.Returns;

/// <summary>The label of a box, 100 by 150 mm: to whom, from where, and both numbers that somebody at the other end scans.</summary>
public static class BoxLabel
{
    private const float Millimetre = 72 / 25.4f;
    private const float Width = 100 * Millimetre;
    private const float Height = 150 * Millimetre;
    private const float Margin = 5 * Millimetre;
    private const float Inner = Width - 2 * Margin;
    private const float CodeSide = 24 * Millimetre;

    /// <summary>Writes a PDF of one label. The same label gives the same bytes.</summary>
    /// <param name="link">Where the ticket is; the QR code leads there.</param>
    public static void Write(ReturnLabel label, Uri link, Stream into)
    {
        using var fonts = new Type();
        using var document = PdfFile.Into(into, $"{TicketNumber.Text(label.Ticket)}  {label.Serial}", label.AsOf);
        var at = new Pen(document.BeginPage(Width, Height), Margin);
        at.Name("To", fonts);
        at.Text(label.To, fonts.Title, Inner, most: 3);
        at.Rule();
        at.Name("From", fonts);
        at.Text(label.From, fonts.Text, Inner, most: 2);
        at.Rule();
        at.Name("Serial", fonts);
        at.Code(label.Serial, fonts);
        at.Text(label.What, fonts.Small, Inner, most: 2);
        at.Rule();
        at.Name("Authorisation", fonts);
        if (label.Authorisation is { Length: > 0 } number)
            at.Code(number, fonts);
        else
            at.Text("none was given", fonts.Text, Inner, most: 1);
        at.Rule();
        if (label.CarriersNumber is { Length: > 0 } parcel)
        {
            at.Name(label.Carrier ?? "Carrier", fonts);
            at.Code(parcel, fonts);
            at.Rule();
        }
        Codes.Qr(at.Canvas, $"{link}", Width - Margin - CodeSide, Height - Margin - CodeSide, CodeSide);
        var beside = Inner - CodeSide - 8;
        at.Text(TicketNumber.Text(label.Ticket), fonts.Title, beside, most: 1);
        at.Text(label.Reason, fonts.Text, beside, most: 2);
        at.Text(label.DueBy is { } due ? $"due {due:yyyy-MM-dd}" : "no date was agreed", fonts.Text, beside, most: 1);
        at.Text("Handle as a drive: no shock, no magnets.", fonts.Small, beside, most: 2);
        document.EndPage();
        document.Close();
    }

    /// <summary>Goes down the label, and never over its edge: what does not fit ends with dots.</summary>
    private sealed class Pen(SKCanvas canvas, float y)
    {
        private float _y = y;

        public SKCanvas Canvas => canvas;

        public void Text(string text, SKFont font, float width, int most)
        {
            using var ink = new SKPaint { Color = SKColors.Black, IsAntialias = true };
            var lines = Wrapping.Lines(text, font, width).ToList();
            for (var i = 0; i < Math.Min(most, lines.Count); i++)
            {
                _y += font.Size * 1.22f;
                canvas.DrawText(i == most - 1 && lines.Count > most ? Dotted(lines[i], font, width) : lines[i], Margin, _y, font, ink);
            }
        }

        public void Name(string name, Type fonts) => Text(name, fonts.Tiny, Inner, most: 1);

        /// <summary>A number as people read it and, under it, as a scanner does.</summary>
        public void Code(string text, Type fonts)
        {
            const float BarsHeight = 11 * Millimetre;
            Text(text, fonts.Chapter, Inner, most: 1);
            _y += 4;
            if (Codes.Bars(canvas, text, Margin, _y, Inner, BarsHeight) > 0)
                _y += BarsHeight + 2;
        }

        public void Rule()
        {
            _y += 6;
            using var ink = new SKPaint { Color = SKColors.Black, StrokeWidth = 0.7f };
            canvas.DrawLine(Margin, _y, Width - Margin, _y, ink);
            _y += 1;
        }

        private static string Dotted(string line, SKFont font, float width)
        {
            while (line.Length > 1 && font.MeasureText($"{line}…") > width)
                line = line[..^1];
            return $"{line.TrimEnd()}…";
        }
    }
}
