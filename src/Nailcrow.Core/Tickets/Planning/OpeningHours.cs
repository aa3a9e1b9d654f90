using System.Globalization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Planning;

/// <summary>
/// The hours of a week in which one is let in. Read from a part of the opening_hours form of open maps: day ranges
/// (Mo-Fr), lists (Mo,We), several spans a day, "off", and "24/7".
/// </summary>
public sealed record OpeningHours
{
    private static readonly string[] Days = ["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su"];

    private readonly IReadOnlyList<(TimeSpan From, TimeSpan To)>[] _spans;

    private OpeningHours(IReadOnlyList<(TimeSpan, TimeSpan)>[] spans) => _spans = spans;

    public static readonly OpeningHours Always = new([
        .. Days.Select(_ => (IReadOnlyList<(TimeSpan, TimeSpan)>)[(TimeSpan.Zero, TimeSpan.FromHours(24))]),
    ]);

    /// <summary>The spans of a day, as times since its midnight.</summary>
    public IReadOnlyList<(TimeSpan From, TimeSpan To)> On(DayOfWeek day) => _spans[((int)day + 6) % 7];

    public static Parsed<OpeningHours> Parse(string text)
    {
        if (text.Trim() is "24/7")
            return new Parsed<OpeningHours>.Ok(Always);
        var spans = Days.Select(_ => (IReadOnlyList<(TimeSpan, TimeSpan)>)[]).ToArray();
        foreach (var rule in text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            if (
                rule.Split(' ', 2, StringSplitOptions.TrimEntries) is not [var days, var hours]
                || DaysIn(days) is not { } chosen
                || SpansIn(hours) is not { } open
            )
                return new Parsed<OpeningHours>.Refused(
                    $"'{rule}' is no opening time; write 'Mo-Fr 08:00-17:00; Sa 09:00-12:00', 'Su off' or '24/7'."
                );
            foreach (var day in chosen)
                spans[day] = open;
        }
        return spans.All(s => s.Count == 0)
            ? new Parsed<OpeningHours>.Refused($"'{text}' is never open; write 'Mo-Fr 08:00-17:00' or '24/7'.")
            : new Parsed<OpeningHours>.Ok(new(spans));
    }

    private static IReadOnlyList<int>? DaysIn(string text)
    {
        var days = new List<int>();
        foreach (var part in text.Split(','))
        {
            var ends = part.Split('-').Select(d => Array.IndexOf(Days, d)).ToList();
            if (ends.Count > 2 || ends.Contains(-1))
                return null;
            for (var day = ends[0]; ; day = (day + 1) % 7)
            {
                days.Add(day);
                if (day == ends[^1])
                    break;
            }
        }
        return days;
    }

    private static IReadOnlyList<(TimeSpan, TimeSpan)>? SpansIn(string text)
    {
        if (text is "off")
            return [];
        var spans = new List<(TimeSpan From, TimeSpan To)>();
        foreach (var part in text.Split(',', StringSplitOptions.TrimEntries))
            if (part.Split('-') is [var from, var to] && Clock(from) is { } opens && Clock(to) is { } closes && opens < closes)
                spans.Add((opens, closes));
            else
                return null;
        return [.. spans.OrderBy(s => s.From)];
    }

    private static TimeSpan? Clock(string text) =>
        text == "24:00" ? TimeSpan.FromHours(24)
        : TimeOnly.TryParseExact(text, "HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out var at) ? at.ToTimeSpan()
        : null;
}
