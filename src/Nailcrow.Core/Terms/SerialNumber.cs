using System.Text.RegularExpressions;

namespace Nailcrow.Core.Terms;

/// <summary>A drive's serial as the label prints it: upper case, no spaces, no prefix. Made only by <see cref="Parse"/>.</summary>
public sealed partial record SerialNumber
{
    // The shortest serials in use have 4 characters; the longest the drive interfaces can report is 20 (ATA) and the
    // open schema allows more, so 40 leaves room without accepting a whole label scanned at once.
    public const int MinLength = 4;
    public const int MaxLength = 40;

    private SerialNumber(string text) => Text = text;

    public string Text { get; }

    public override string ToString() => Text;

    public static Parsed<SerialNumber> Parse(string? input)
    {
        var text = Normalise(input);
        if (text.FirstOrDefault(c => !char.IsAsciiLetterOrDigit(c) && c != '-') is var odd and not '\0')
            return new Parsed<SerialNumber>.Refused($"Serial '{text}' has '{odd}'; a serial has letters, digits and dashes.");
        return text.Length is < MinLength or > MaxLength
            ? new Parsed<SerialNumber>.Refused(
                $"Serial '{text}' has {text.Length} {(text.Length == 1 ? "character" : "characters")}; a label has {MinLength} to {MaxLength}."
            )
            : new Parsed<SerialNumber>.Ok(new(text));
    }

    /// <summary>It may be what a label prints: what is read as a word (cannot, blank) is none.</summary>
    public static bool IsPlausible(string? read) =>
        Parse(read) is Parsed<SerialNumber>.Ok(var serial) && serial.Text.Any(char.IsAsciiDigit);

    /// <summary>Upper case, white space gone, a printed prefix such as "S/N:" gone. Never throws, so that what was read is kept.</summary>
    public static string Normalise(string? input)
    {
        var text = Invisible().Replace((input ?? "").ToUpperInvariant(), "");
        return PrintedPrefix().Replace(text, "");
    }

    /// <summary>
    /// What a scanned code may mean: itself, or itself without a leading data identifier. "S" says "serial number" in
    /// the ANSI MH10.8.2 list ("1S" to "25S" are its kin), but many serials begin with S themselves, so both are kept.
    /// </summary>
    public static IEnumerable<string> Meanings(string? input)
    {
        var text = Normalise(input);
        yield return text;
        if (DataIdentifier().Match(text) is { Success: true } found && text.Length - found.Length >= MinLength)
            yield return text[found.Length..];
    }

    // White space, and what some scanners and pasted texts carry along: control characters, zero-width and direction marks.
    [GeneratedRegex(@"[\s\p{Cc}\p{Cf}]+")]
    private static partial Regex Invisible();

    [GeneratedRegex(@"^(SERIALNUMBER|SERIALNO\.?|SERIAL|S/N|SER|SN)[:#.=]+|^\(S\)|^S/N|^SERIALNUMBER")]
    private static partial Regex PrintedPrefix();

    [GeneratedRegex(@"^\d{0,2}S")]
    private static partial Regex DataIdentifier();
}
