using SkiaSharp;

namespace Nailcrow.Documents;

/// <summary>Liberation Sans (SIL Open Font Licence), shipped with the service: a paper looks the same wherever it is made.</summary>
internal static class Fonts
{
    public static SKFont Regular(float size) => Set("LiberationSans-Regular.ttf", size);

    public static SKFont Bold(float size) => Set("LiberationSans-Bold.ttf", size);

    // As wide as drawn: widths that are rounded to a screen's dots tear words apart on paper.
    private static SKFont Set(string name, float size) =>
        new(Read(name), size)
        {
            LinearMetrics = true,
            Subpixel = true,
            Hinting = SKFontHinting.None,
        };

    private static SKTypeface Read(string name)
    {
        using var stream =
            typeof(Fonts).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidOperationException($"The font {name} was not built in.");
        return SKTypeface.FromStream(stream);
    }
}
