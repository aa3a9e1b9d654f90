using Nailcrow.Core.Terms;

namespace Nailcrow.Store.Rows;

/// <summary>Texts that begin with another: a stretch of an index in the order of characters' numbers, up to before its end.</summary>
internal static class Beginning
{
    // No character has a higher number.
    private const string Highest = "\U0010FFFF";

    public static (string From, string To) With(string text) => (Shortened.Whole(text), Shortened.Whole(text) + Highest);

    /// <summary>The same for texts that end with it, in an index of texts that are turned round.</summary>
    public static (string From, string To) Reversed(string text) => With(Shortened.Reversed(text));
}
