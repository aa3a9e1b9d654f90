using System.Text;

namespace Nailcrow.Core.Terms;

/// <summary>
/// Cuts texts between characters, and never in the middle of one that takes two places (a surrogate pair, Unicode Standard 3.8): half a
/// character is no text, and a database that takes nothing else refuses the whole.
/// </summary>
public static class Shortened
{
    /// <param name="most">How many UTF-16 places of the text stay at most.</param>
    /// <param name="mark">Says that there was more; null for nothing.</param>
    public static string To(string text, int most, string? mark = "...") =>
        text.Length <= most ? text : text[..(most > 0 && char.IsHighSurrogate(text[most - 1]) ? most - 1 : most)] + mark;

    /// <summary>A text whose halves of characters are replaced by the mark for what cannot be read (U+FFFD).</summary>
    public static string Whole(string text) => string.Concat(text.EnumerateRunes());

    /// <summary>From its last character to its first.</summary>
    public static string Reversed(string text) => string.Concat(text.EnumerateRunes().Reverse());
}
