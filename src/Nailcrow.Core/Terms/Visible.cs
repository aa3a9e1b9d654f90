using System.Globalization;
using System.Text;

namespace Nailcrow.Core.Terms;

/// <summary>
/// Makes visible what a text does to a terminal instead of saying: control characters, escape sequences, marks that turn the
/// direction of reading. A stranger's syslog line is shown, and never obeyed.
/// </summary>
public static class Visible
{
    public static string Text(string text) => text.AsSpan().IndexOfAny(Hidden) < 0 ? text : Shown(text, _ => false);

    /// <summary>The same for text of several lines: line ends, also those of CSV (RFC 4180), and tabs do what they always do.</summary>
    public static string Lines(string text) =>
        text.AsSpan().IndexOfAny(Hidden) < 0
            ? text
            : Shown(text, at => text[at] is '\n' or '\t' || (text[at] == '\r' && at + 1 < text.Length && text[at + 1] == '\n'));

    private static string Shown(string text, Func<int, bool> isMeant)
    {
        var shown = new StringBuilder(text.Length + 8);
        for (var at = 0; at < text.Length; at++)
            if (text[at] is var c && (!Hidden.Contains(c) || isMeant(at)))
                shown.Append(c);
            else if (c < 0x20)
                shown.Append((char)(0x2400 + c)); // the control pictures of Unicode, U+2400 to U+241F
            else if (c == 0x7F)
                shown.Append('␡');
            else
                shown.Append(CultureInfo.InvariantCulture, $"\\u{(int)c:X4}");
        return shown.ToString();
    }

    // C0 and C1 controls (ISO 6429); bidirectional controls (Unicode Standard Annex 9); what has no width and joins or ends lines.
    private static readonly System.Buffers.SearchValues<char> Hidden = System.Buffers.SearchValues.Create([
        .. Enumerable.Range(0, 0x20).Select(c => (char)c),
        .. Enumerable.Range(0x7F, 0x21).Select(c => (char)c),
        '\u061C',
        .. Enumerable.Range(0x200B, 5).Select(c => (char)c),
        '\u2028',
        '\u2029',
        .. Enumerable.Range(0x202A, 5).Select(c => (char)c),
        .. Enumerable.Range(0x2066, 4).Select(c => (char)c),
        '\uFEFF',
    ]);
}
