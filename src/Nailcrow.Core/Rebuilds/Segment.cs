namespace Nailcrow.Core.Rebuilds;

/// <summary>A run of readings that belong together: one phase, never falling back.</summary>
public sealed record Segment(RebuildPhase Phase, bool FellBack, IReadOnlyList<Reading> Readings)
{
    public Reading Last => Readings[^1];

    /// <summary>Splits running readings with a percentage, in order of time, where the phase changes or progress falls back.</summary>
    public static IReadOnlyList<Segment> Of(IEnumerable<Reading> readings)
    {
        var segments = new List<Segment>();
        var open = new List<Reading>();
        foreach (var reading in readings.Where(r => r is { Progress: Progress.Running, Percent: not null }).OrderBy(r => r.At))
        {
            if (open.Count > 0 && (open[^1].Phase != reading.Phase || reading.Percent < open[^1].Percent))
            {
                segments.Add(new(open[^1].Phase, BelowBefore(segments, open), open));
                open = [];
            }
            open.Add(reading);
        }
        if (open.Count > 0)
            segments.Add(new(open[^1].Phase, BelowBefore(segments, open), open));
        return segments;
    }

    private static bool BelowBefore(List<Segment> earlier, List<Reading> open) =>
        earlier.Count > 0 && earlier[^1].Phase == open[0].Phase && open[0].Percent < earlier[^1].Last.Percent;
}
