using SkiaSharp;

namespace Nailcrow.Documents.Reports;

/// <summary>What the papers that a customer reads and signs have in common.</summary>
internal static class CustomersPaper
{
    public static void Begin(Paper paper, Type fonts, string title, IEnumerable<string> heading)
    {
        paper.Text(title, fonts.Title, Paper.Margin, Paper.Inner);
        paper.Y += 4;
        foreach (var line in heading)
            paper.Text(line, fonts.Text, Paper.Margin, Paper.Inner);
    }

    /// <summary>The name of a chapter over its line, with something of the chapter on the same page.</summary>
    public static void Chapter(Paper paper, Type fonts, string name)
    {
        paper.Need(60);
        paper.Y += 12;
        paper.Text(name, fonts.Chapter, Paper.Margin, Paper.Inner);
        paper.Y += 3;
        paper.Line(Paper.Margin, paper.Y, Paper.Inner);
    }

    public static void SignedHere(Paper paper, Type fonts)
    {
        paper.Need(60);
        paper.Y += 40;
        paper.Text("For the customer ______________________________    Date ____________", fonts.Text, Paper.Margin, Paper.Inner);
    }

    /// <summary>The hand of whoever signed on a screen, over the line.</summary>
    /// <param name="signature">A picture; one that cannot be drawn leaves the line empty.</param>
    public static void Signed(Paper paper, Type fonts, byte[] signature)
    {
        const float Width = 200;
        const float Height = 70;
        paper.Need(Height + 40);
        paper.Y += 20;
        using var picture = SKImage.FromEncodedData(signature);
        if (picture is not null)
        {
            var scale = Math.Min(Width / picture.Width, Height / picture.Height);
            var place = SKRect.Create(Paper.Margin + 100, paper.Y, picture.Width * scale, picture.Height * scale);
            paper.Canvas.DrawImage(picture, place, new SKSamplingOptions(SKCubicResampler.Mitchell));
        }
        paper.Y += Height - 8;
        paper.Text("For the customer ______________________________", fonts.Text, Paper.Margin, Paper.Inner);
    }

    public static string Clock(DateTimeOffset at, TimeZoneInfo zone) => $"{TimeZoneInfo.ConvertTime(at, zone):yyyy-MM-dd HH:mm}";
}
