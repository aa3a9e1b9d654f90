using SkiaSharp;

namespace Nailcrow.Documents;

/// <summary>The sizes of type that our papers are set in.</summary>
internal sealed class Type : IDisposable
{
    public SKFont Title { get; } = Fonts.Bold(17);
    public SKFont Chapter { get; } = Fonts.Bold(12);
    public SKFont Say { get; } = Fonts.Bold(10);
    public SKFont Text { get; } = Fonts.Regular(10);
    public SKFont Small { get; } = Fonts.Regular(8.5f);
    public SKFont Fine { get; } = Fonts.Regular(8);
    public SKFont SmallSay { get; } = Fonts.Bold(8);
    public SKFont Tiny { get; } = Fonts.Regular(7.5f);

    public void Dispose() => new List<SKFont> { Title, Chapter, Say, Text, Small, Fine, SmallSay, Tiny }.ForEach(f => f.Dispose());
}
