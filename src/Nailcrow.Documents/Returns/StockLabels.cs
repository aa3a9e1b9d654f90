using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Terms;
using SkiaSharp;

namespace Nailcrow.Documents.Returns;

/// <summary>Labels for parts on a shelf: 70 by 37 mm, one on a page of that size, several on A4 sheets of three by eight.</summary>
public static class StockLabels
{
    private const float Millimetre = 72 / 25.4f;
    private const float Width = 70 * Millimetre;
    private const float Height = 37 * Millimetre;
    private const float Margin = 4 * Millimetre;
    private const float Inner = Width - 2 * Margin;
    private const int Across = 3;
    private const int OnASheet = 24;

    /// <summary>Writes a PDF. The same parts at the same time give the same bytes.</summary>
    public static void Write(IReadOnlyList<StoredPart> parts, DateTimeOffset made, Stream into)
    {
        using var fonts = new Type();
        using var document = PdfFile.Into(into, parts.Count == 1 ? $"Label of {parts[0].Serial}" : $"{parts.Count} labels", made);
        if (parts is [var only])
        {
            Label(document.BeginPage(Width, Height), fonts, only, 0, 0);
            document.EndPage();
        }
        else
            foreach (var sheet in parts.Chunk(OnASheet))
            {
                var canvas = document.BeginPage(Paper.Width, Paper.Height);
                for (var i = 0; i < sheet.Length; i++)
                    Label(canvas, fonts, sheet[i], i % Across * Width, i / Across * Height);
                document.EndPage();
            }
        document.Close();
    }

    private static void Label(SKCanvas canvas, Type fonts, StoredPart part, float x, float y)
    {
        const float BarsHeight = 11 * Millimetre;
        using var ink = new SKPaint { Color = SKColors.Black, IsAntialias = true };
        var at = y + Margin + fonts.Chapter.Size;
        canvas.DrawText(part.Serial, x + Margin, at, Fitting(part.Serial, fonts), ink);
        Codes.Bars(canvas, part.Serial, x + Margin, at + 4, Inner, BarsHeight);
        at += 4 + BarsHeight;
        foreach (var line in Told(part).SelectMany(told => Wrapping.Lines(told, fonts.Small, Inner).Take(1)))
        {
            at += fonts.Small.Size * 1.25f;
            canvas.DrawText(line, x + Margin, at, fonts.Small, ink);
        }
    }

    private static SKFont Fitting(string serial, Type fonts) =>
        new[] { fonts.Chapter, fonts.Say, fonts.Small }.FirstOrDefault(f => f.MeasureText(serial) <= Inner) ?? fonts.Tiny;

    private static IEnumerable<string> Told(StoredPart part)
    {
        yield return part.Bytes > 0 ? $"{part.Model}, {ByteSize.Both(part.Bytes)}" : part.Model;
        yield return $"{part.Holder}";
        if (part.UnwipedFrom is { } machine)
            yield return $"USED: wipe first, data of {machine}";
    }
}
