using SkiaSharp;

namespace Nailcrow.Documents;

/// <summary>Liberation Sans (SIL Open Font Licence), shipped with the service: a paper looks the same wherever it is made.</summary>
internal static class Fonts
{
    public static SKFont Regular(float size) => new(Read("LiberationSans-Regular.ttf"), size);

    public static SKFont Bold(float size) => new(Read("LiberationSans-Bold.ttf"), size);

    private static SKTypeface Read(string name)
    {
        using var stream =
            typeof(Fonts).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidOperationException($"The font {name} was not built in.");
        return SKTypeface.FromStream(stream);
    }
}
