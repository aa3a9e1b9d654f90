namespace Nailcrow.Core.Rebuilds;

/// <summary>Readings by what they add: of a stretch in which the display stood still, its first and its last say all.</summary>
public static class Thinned
{
    /// <summary>The readings with one more, which takes the place of the last where both repeat the one before.</summary>
    public static System.Collections.Immutable.ImmutableList<Reading> With(
        System.Collections.Immutable.ImmutableList<Reading> readings,
        Reading next
    ) =>
        readings is [.., var first, var last] && Shows(first) == Shows(last) && Shows(last) == Shows(next)
            ? readings.SetItem(readings.Count - 1, next)
            : readings.Add(next);

    /// <summary>At most so many, for a chart: the first and last of all and of each phase, and of the others every n-th.</summary>
    public static IReadOnlyList<Reading> ToChart(IReadOnlyList<Reading> readings, int most)
    {
        if (readings.Count <= most)
            return readings;
        var corners = Enumerable
            .Range(0, readings.Count)
            .Where(i => i == 0 || i == readings.Count - 1 || Turns(readings[i - 1], readings[i]) || Turns(readings[i], readings[i + 1]))
            .ToList();
        // A machine whose display jumps to and fro has more corners than a chart has points; then they are thinned as well.
        var chosen = corners.Count <= most / 2 ? corners : [.. Spread(corners, most / 2)];
        return
        [
            .. chosen
                .Concat(Spread([.. Enumerable.Range(0, readings.Count)], most - chosen.Count))
                .Distinct()
                .Order()
                .Select(i => readings[i]),
        ];
    }

    private static IEnumerable<int> Spread(List<int> of, int count) =>
        Enumerable.Range(0, count).Select(n => of[(int)((long)n * (of.Count - 1) / Math.Max(1, count - 1))]);

    private static bool Turns(Reading a, Reading b) => a.Phase != b.Phase || a.Progress != b.Progress || b.Percent < a.Percent;

    private static (string, Progress, RebuildPhase, decimal?, string) Shows(Reading reading) =>
        (reading.Array, reading.Progress, reading.Phase, reading.Percent, reading.Source);
}
