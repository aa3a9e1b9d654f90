namespace Nailcrow.Core.Rebuilds;

/// <summary>A range of time left, and how often such a range was right at the least where it was tried, in percent.</summary>
public sealed record TimeLeft(TimeSpan Least, TimeSpan Most, int Confidence)
{
    /// <summary>
    /// How much faster or slower than any pace seen so far it may go on. With this a range held the end at least
    /// <see cref="Measured"/> times in 100 in each of the kinds of rebuild it was tried on: steady, slowing towards the inner tracks,
    /// under load by day, in bursts, after a change of pace, with stops, and all of it together.
    /// </summary>
    private const double Margin = 1.5;

    /// <summary>What docs/performance.md records of the trials, in the worst of their kinds; a test holds it.</summary>
    private const int Measured = 70;

    private const int FewestSteps = 4;

    // A rebuild that has stood still for the last third of its time is not for ever; this much slower than its best it may be.
    private const double SlowestShare = 0.1;

    /// <summary>
    /// The range from the readings of one segment, or null where it is too early to tell. From the fastest pace seen, held to the end, to
    /// the slowest, slowing as a disk does towards its end, where inner tracks run at half the outer rate: v(x) = v0·(1 − x/2), so
    /// time ∝ −2·ln(1 − x/2); both widened by <see cref="Margin"/> and by what one step of the display is of all that was seen.
    /// </summary>
    /// <param name="floor">What is left cannot take less than this: bytes to write over the drive's sustained rate.</param>
    internal static TimeLeft? From(Segment segment, TimeSpan floor, DateTimeOffset now)
    {
        var steps = segment.Steps;
        if (steps.Count < FewestSteps)
            return null;
        var (first, last) = (steps[0], steps[^1]);
        var paces = Paces(steps, segment.Last.At).ToList();
        var (fast, slow) = (paces.Max(), Math.Max(paces.Min(), paces.Max() * SlowestShare));
        var (begun, done) = (Share(first), Share(last));
        var slowing = (Slowing(1) - Slowing(done)) / (Slowing(done) - Slowing(begun)) * (done - begun);
        var margin = Margin * (1 + (double)segment.SmallestStep() / 100 / (done - begun));
        var since = now - segment.Last.At;
        var least = Later(Seconds((1 - done) / fast / margin) - since, floor);
        return new(least, Later(Seconds(Math.Max(1 - done, slowing) / slow * margin) - since, least), Measured);
    }

    /// <summary>Shares of the whole per second: over all the time, while it moved, and over the last third of the time.</summary>
    private static IEnumerable<double> Paces(IReadOnlyList<Reading> steps, DateTimeOffset until)
    {
        yield return Pace(steps[0], steps[^1], until);
        yield return Pace(steps[0], steps[^1], steps[^1].At);
        var recent = steps[0].At + (until - steps[0].At) * 2 / 3;
        yield return Pace(steps.Last(r => r.At <= recent), steps[^1], until);
    }

    private static double Pace(Reading from, Reading to, DateTimeOffset until) =>
        (Share(to) - Share(from)) / Math.Max(1e-3, (until - from.At).TotalSeconds);

    private static double Share(Reading reading) => (double)(reading.Percent ?? 0) / 100; // readings of a segment have one

    private static double Slowing(double done) => -2 * Math.Log(1 - done / 2);

    private static TimeSpan Seconds(double seconds) => TimeSpan.FromSeconds(Math.Clamp(seconds, 0, 3.2e7));

    private static TimeSpan Later(TimeSpan value, TimeSpan floor) => value > floor ? value : floor;
}
