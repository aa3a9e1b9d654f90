using System.Globalization;
using System.Text.RegularExpressions;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Intake.Rules;

/// <summary>One syslog message, of RFC 5424 or of the older BSD form (RFC 3164).</summary>
/// <param name="Severity">0 emergency to 7 debug.</param>
/// <param name="At">As the sender says; null where it says none. The older form has no year and no zone: see <see cref="Parse"/>.</param>
/// <param name="Host">Null where the message names none.</param>
public sealed record SyslogMessage(int Facility, int Severity, DateTimeOffset? At, string? Host, string? App, string Text)
{
    // RFC 5424 asks for 480 octets and recommends 2048; what is longer is cut by senders, and here.
    public const int MostChars = 8192;

    // 24 facilities of 8 severities.
    private const int MostPriority = 191;

    // Matched without backtracking, so that no line can make the reading of it slow.
    private static readonly Regex Older = new(
        @"^(?<month>Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec) {1,2}(?<day>\d{1,2}) (?:(?<year>\d{4}) )?"
            + @"(?<time>\d\d:\d\d:\d\d) (?<host>\S+) (?<rest>.*)$",
        RegexOptions.NonBacktracking | RegexOptions.Singleline | RegexOptions.CultureInvariant
    );

    private static readonly Regex Tag = new(
        @"^(?<app>[\w./-]{1,48})(?:\[\d+\])?: ?(?<text>.*)$",
        RegexOptions.NonBacktracking | RegexOptions.Singleline | RegexOptions.CultureInvariant
    );

    /// <summary>
    /// Reads a line. A year that is missing is the one that puts the line nearest to <paramref name="now"/>; a zone that is missing
    /// is UTC.
    /// </summary>
    public static Parsed<SyslogMessage> Parse(string line, DateTimeOffset now)
    {
        var text = Cleaned(Shortened.To(line, MostChars, null));
        var close = text.StartsWith('<') ? text.IndexOf('>') : -1;
        if (
            close is < 2 or > 4
            || !int.TryParse(text.AsSpan(1, close - 1), NumberStyles.None, CultureInfo.InvariantCulture, out var priority)
            || priority > MostPriority
        )
            return new Parsed<SyslogMessage>.Refused($"A syslog line begins with its priority, as in '<134>'; 0 to {MostPriority}.");
        var rest = text[(close + 1)..];
        return rest.StartsWith("1 ", StringComparison.Ordinal)
            ? Newer(priority, rest[2..])
            : new Parsed<SyslogMessage>.Ok(Bsd(priority, rest, now));
    }

    /// <summary>VERSION TIMESTAMP HOSTNAME APP-NAME PROCID MSGID STRUCTURED-DATA [MSG]; "-" is nothing.</summary>
    private static Parsed<SyslogMessage> Newer(int priority, string rest)
    {
        var parts = rest.Split(' ', 6);
        if (parts.Length < 6)
            return new Parsed<SyslogMessage>.Refused(
                "An RFC 5424 line has a time, host, app, process, message id and structured data after its version."
            );
        DateTimeOffset? at = null;
        if (parts[0] != "-")
        {
            if (!DateTimeOffset.TryParse(parts[0], CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var read))
                return new Parsed<SyslogMessage>.Refused($"'{parts[0]}' is no time; RFC 5424 writes 2026-03-01T08:00:00Z.");
            at = read;
        }
        return new Parsed<SyslogMessage>.Ok(
            new(priority / 8, priority % 8, at, Given(parts[1]), Given(parts[2]), AfterStructuredData(parts[5]))
        );
    }

    private static SyslogMessage Bsd(int priority, string rest, DateTimeOffset now)
    {
        if (Older.Match(rest) is not { Success: true } head)
            return Tagged(priority, null, null, rest);
        var year = head.Groups["year"] is { Success: true } given ? int.Parse(given.Value, CultureInfo.InvariantCulture) : 0;
        return Tagged(
            priority,
            When(head.Groups["month"].Value, head.Groups["day"].Value, head.Groups["time"].Value, year, now),
            head.Groups["host"].Value,
            head.Groups["rest"].Value
        );
    }

    private static SyslogMessage Tagged(int priority, DateTimeOffset? at, string? host, string rest) =>
        Tag.Match(rest) is { Success: true } tag
            ? new(priority / 8, priority % 8, at, host, tag.Groups["app"].Value, tag.Groups["text"].Value)
            : new(priority / 8, priority % 8, at, host, null, rest);

    private static DateTimeOffset? When(string month, string day, string time, int year, DateTimeOffset now)
    {
        DateTimeOffset? In(int y) =>
            DateTimeOffset.TryParseExact(
                $"{y:0000} {month} {day.PadLeft(2, '0')} {time}",
                "yyyy MMM dd HH:mm:ss",
                CultureInfo.InvariantCulture,
                DateTimeStyles.AssumeUniversal,
                out var at
            )
                ? at
                : null;
        return year > 0
            ? In(year)
            : new[] { now.Year - 1, now.Year, now.Year + 1 }
                .Select(In)
                .OfType<DateTimeOffset>()
                .Cast<DateTimeOffset?>()
                .MinBy(at => (at - now)?.Duration());
    }

    /// <summary>Structured data is "-" or elements in brackets, in which "]" may be escaped by "\".</summary>
    private static string AfterStructuredData(string rest)
    {
        if (rest.StartsWith('-'))
            return rest.Length > 1 ? rest[1..].TrimStart() : "";
        var (inside, quoted) = (false, false);
        for (var at = 0; at < rest.Length; at++)
            switch (rest[at])
            {
                case '\\':
                    at++;
                    break;
                case '"':
                    quoted = !quoted;
                    break;
                case '[' when !quoted:
                    inside = true;
                    break;
                case ']' when !quoted && (at + 1 >= rest.Length || rest[at + 1] != '['):
                    return rest[(at + 1)..].TrimStart().TrimStart('\uFEFF');
                case not ']' when !inside:
                    return rest;
            }
        return "";
    }

    private static string? Given(string part) => part == "-" ? null : part;

    /// <summary>Control characters would move the cursor of whoever reads the line; they are shown as a middle dot.</summary>
    private static string Cleaned(string line) =>
        new([.. line.TrimEnd('\r', '\n', '\0').Select(c => char.IsControl(c) && c != '\t' ? '·' : c)]);
}
