namespace Nailcrow.Core.Rebuilds;

/// <summary>
/// What a row of readings says of a rebuild's way: its stretches, without what was mistyped. One reading that does not follow the
/// one before it may be a slip or may be the truth; the next one tells, and until then it is doubted.
/// </summary>
/// <param name="Doubted">The last reading, where it does not follow and nothing came after it.</param>
internal sealed record Course(IReadOnlyList<Segment> Segments, Reading? Doubted)
{
    // A rebuild that nobody disturbs any more has been seen to go five times as fast as before; more, and faster than this
    // many percent points, is asked about once.
    private const double Leap = 5;
    private const decimal LeastLeap = 5;

    public static Course Of(IEnumerable<Reading> readings)
    {
        var shown = readings
            .Where(r => r is { Progress: Progress.Running, Percent: not null })
            .OrderBy(r => r.At)
            .Select(AsDisplays)
            .ToList();
        var display = new Display(shown);
        var segments = new List<Segment>();
        var open = new List<Reading>();
        Reading? doubted = null;
        for (var i = 0; i < shown.Count; i++)
        {
            var (reading, next) = (shown[i], i + 1 < shown.Count ? shown[i + 1] : null);
            switch (Judge(open, reading, next, display))
            {
                case Follows.Yes:
                    open.Add(reading);
                    break;
                case Follows.InPlaceOfTheLast:
                    open[^1] = reading;
                    break;
                case Follows.BeginsAnew:
                    Close();
                    open = [reading];
                    break;
                case Follows.Unclear:
                    doubted = reading;
                    break;
                default: // a slip, as the next one shows
                    break;
            }
        }
        Close();
        return new(segments, doubted);

        void Close()
        {
            if (open.Count == 0)
                return;
            var fellBack = segments is [.., var before] && before.Phase == open[0].Phase;
            segments.Add(new(open[0].Phase, fellBack, open, display));
        }
    }

    // No display tells more of a rebuild; a quotient with twenty decimals does not make the steps of one finer.
    private const int MostDecimals = 3;

    private static Reading AsDisplays(Reading reading) =>
        reading.Percent is { Scale: > MostDecimals } percent ? reading with { Percent = Math.Round(percent, MostDecimals) } : reading;

    private enum Follows
    {
        Yes,
        InPlaceOfTheLast,
        BeginsAnew,
        Unclear,
        Slip,
    }

    private static Follows Judge(List<Reading> open, Reading reading, Reading? next, Display display)
    {
        if (open is not [.., var last])
            return Follows.Yes;
        if (reading.Phase != last.Phase)
            return next?.Phase == last.Phase && reading.Source == Reading.Person ? Follows.Slip : Follows.BeginsAnew;
        if (display.FallsBack(last, reading))
            return last.Source == Reading.Person && open is [.., var beforeLast, _] && !display.FallsBack(beforeLast, reading)
                    ? Follows.InPlaceOfTheLast // what was typed before this stood above both its neighbours
                : next is null ? Follows.Unclear
                : next.Phase != reading.Phase || display.FallsBack(last, next) ? Follows.BeginsAnew
                : Follows.Slip;
        if (!Leaps(open, reading, display))
            return Follows.Yes;
        return next is null ? Follows.Unclear
            : next.Phase == reading.Phase && display.FallsBack(reading, next) ? Follows.Slip
            : Follows.Yes;
    }

    /// <summary>Further in this time than the pace so far explains; where there is no pace yet, nothing leaps.</summary>
    private static bool Leaps(List<Reading> open, Reading reading, Display display)
    {
        var rise = reading.Percent - open[^1].Percent;
        if (rise < LeastLeap || new Segment(reading.Phase, false, open, display) is not { Steps.Count: >= 3 } line)
            return false;
        var pace = (double)(line.Last.Percent - line.Steps[0].Percent ?? 0) / Math.Max(1, (line.Last.At - line.Steps[0].At).TotalSeconds);
        return (double)(rise ?? 0) > Leap * pace * (reading.At - line.Last.At).TotalSeconds + 2 * (double)line.SmallestStep();
    }
}
