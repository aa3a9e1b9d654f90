namespace Nailcrow.Core.Tickets.Planning;

/// <summary>A stretch of real time.</summary>
public sealed record Stretch(DateTimeOffset From, DateTimeOffset To);

/// <summary>
/// Time that counts at a site: its opening hours on its own clock, without its holidays. Lengths are real time, so a day on
/// which the clocks change is an hour longer or shorter than its hours say.
/// </summary>
public sealed record WorkingTime(OpeningHours Hours, IReadOnlySet<DateOnly> Holidays, TimeZoneInfo Zone)
{
    // A site that opens one hour a week still works off four weeks' promise in this many days.
    private const int MostDays = 5 * 366;

    /// <summary>When so much working time has passed since a moment, the stopped stretches left out.</summary>
    /// <returns>Null where it never does.</returns>
    public DateTimeOffset? After(DateTimeOffset start, TimeSpan length, IReadOnlyList<Stretch> stopped)
    {
        var left = length;
        foreach (var open in OpenFrom(start).SelectMany(o => Without(o, stopped)))
        {
            var counts = open.To - open.From;
            if (counts >= left)
                return (open.From + left).ToUniversalTime();
            left -= counts;
        }
        return null;
    }

    public TimeSpan Between(DateTimeOffset from, DateTimeOffset to)
    {
        var sum = TimeSpan.Zero;
        foreach (var open in OpenFrom(from).TakeWhile(o => o.From < to))
            sum += (open.To < to ? open.To : to) - open.From;
        return sum;
    }

    private IEnumerable<Stretch> OpenFrom(DateTimeOffset start)
    {
        var first = DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(start, Zone).DateTime);
        for (var day = 0; day < MostDays; day++)
        {
            var date = first.AddDays(day);
            if (Holidays.Contains(date))
                continue;
            foreach (var (from, to) in Hours.On(date.DayOfWeek))
            {
                var (opens, closes) = (Instant(date, from, earlier: true), Instant(date, to, earlier: false));
                if (closes > start)
                    yield return new(opens < start ? start : opens, closes);
            }
        }
    }

    /// <summary>
    /// The instant of a local time. One that the clock jumps over is the jump; of one that comes twice, opening takes the first and
    /// closing the second.
    /// </summary>
    private DateTimeOffset Instant(DateOnly date, TimeSpan time, bool earlier)
    {
        var local = date.ToDateTime(TimeOnly.MinValue) + time;
        if (Zone.IsInvalidTime(local))
        {
            var before = Zone.GetUtcOffset(local.AddHours(-3));
            return new DateTimeOffset(local, before); // the same instant as the jump or shortly after it, on the old clock
        }
        if (!Zone.IsAmbiguousTime(local))
            return new(local, Zone.GetUtcOffset(local));
        var offsets = Zone.GetAmbiguousTimeOffsets(local);
        return new(local, earlier ? offsets.Max() : offsets.Min()); // the greater offset is the earlier instant
    }

    private static IEnumerable<Stretch> Without(Stretch open, IReadOnlyList<Stretch> stopped)
    {
        var from = open.From;
        foreach (var stop in stopped.Where(s => s.To > open.From && s.From < open.To).OrderBy(s => s.From))
        {
            if (stop.From > from)
                yield return new(from, stop.From);
            if (stop.To > from)
                from = stop.To;
        }
        if (from < open.To)
            yield return new(from, open.To);
    }
}
