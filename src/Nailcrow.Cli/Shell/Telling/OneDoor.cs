using System.Text;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Shell.Telling;

/// <summary>
/// The one door that all output goes through, whoever writes it. What comes from data was made visible before; whatever was
/// forgotten is here. Only colour passes as it is: the sequences that Nailcrow itself writes to a terminal.
/// </summary>
internal sealed class OneDoor(TextWriter inner) : TextWriter
{
    public override Encoding Encoding => inner.Encoding;

    public override void Write(char value) => Write(value.ToString());

    public override void Write(char[] buffer, int index, int count) => Write(new string(buffer, index, count));

    public override void Write(string? value)
    {
        for (var at = 0; value is not null && at < value.Length; )
        {
            var escape = value.IndexOf('\e', at);
            var said = escape < 0 ? value[at..] : value[at..escape];
            inner.Write(Visible.Lines(said));
            if (escape < 0)
                return;
            var colour = ColourAt(value, escape);
            inner.Write(colour > 0 ? value.Substring(escape, colour) : "␛");
            at = escape + Math.Max(1, colour);
        }
    }

    public override void WriteLine() => inner.WriteLine();

    public override void WriteLine(string? value)
    {
        Write(value);
        inner.WriteLine();
    }

    public override void Flush() => inner.Flush();

    /// <summary>
    /// Length of "select graphic rendition" (ECMA-48, 8.3.117) at this place: ESC [ digits and semicolons m; 0 where it is anything
    /// else.
    /// </summary>
    private static int ColourAt(string text, int at)
    {
        if (at + 2 >= text.Length || text[at + 1] != '[')
            return 0;
        var end = at + 2;
        while (end < text.Length && (char.IsAsciiDigit(text[end]) || text[end] == ';'))
            end++;
        return end < text.Length && text[end] == 'm' ? end + 1 - at : 0;
    }
}
