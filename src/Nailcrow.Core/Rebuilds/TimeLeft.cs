namespace Nailcrow.Core.Rebuilds;

/// <summary>A range of time left, and how often such a range holds the truth, in percent.</summary>
public sealed record TimeLeft(TimeSpan Least, TimeSpan Most, int Confidence)
{
    // Two-sided 80 % of a normal spread.
    private const double Spread = 1.28;

    // A rebuild shares its machine with people; even a steady one has been seen to change pace by this much.
    private const double LeastDoubt = 0.06;
    private const double MostDoubt = 0.6;

    private const int FewestSteps = 3;

    /// <summary>
    /// The range from the readings of one segment, or null where it is too early to tell. Two ways to go on are
    /// reckoned and both are inside the range: at the present pace, and slowing as a disk does towards its end, where
    /// inner tracks run at half the outer rate: v(x) = v0·(1 − x/2), so time ∝ −2·ln(1 − x/2).
    /// </summary>
    /// <param name="floor">What is left cannot take less than this: bytes to write over the drive's sustained rate.</param>
    public static TimeLeft? From(Segment segment, TimeSpan floor, DateTimeOffset now)
    {
        var steps = Steps(segment);
        if (steps.Count < FewestSteps || steps[^1].At <= steps[0].At)
            return null;
        var even = Range(steps, x => x);
        var slowing = Range(steps, x => -2 * Math.Log(1 - x / 2));
        var since = now - steps[^1].At;
        var least = Later(Shorter(even.Least, slowing.Least) - since, floor);
        return new(least, Later(Longer(even.Most, slowing.Most) - since, least), WatchSettings.Confidence);
    }

    /// <summary>The readings at which the display moved; those between say nothing that these do not.</summary>
    internal static List<Reading> Steps(Segment segment) =>
        [.. segment.Readings.Where((r, i) => i == 0 || r.Percent != segment.Readings[i - 1].Percent)];

    /// <summary>The smallest step the display can show, as a share of the whole: "62" moves by 1 %, "62.5" by 0.1 %.</summary>
    internal static double DisplayStep(IEnumerable<Reading> readings) => Math.Pow(10, -readings.Max(r => (r.Percent ?? 0).Scale)) / 100;

    private static (TimeSpan Least, TimeSpan Most) Range(List<Reading> steps, Func<double, double> course)
    {
        var at = steps.Select(r => (r.At - steps[0].At).TotalSeconds).ToArray();
        var done = steps.Select(r => course((double)r.Percent! / 100)).ToArray(); // Segment keeps only readings with one
        var pace = WeightedPaces(at, done);
        var left = course(1) - done[^1];
        var doubt = Math.Clamp(pace.Doubt + DisplayStep(steps) / Math.Max(done[^1] - done[0], 1e-9), LeastDoubt, MostDoubt);
        return (Seconds(left / (pace.Mean * (1 + Spread * doubt))), Seconds(left / (pace.Mean * Math.Max(0.1, 1 - Spread * doubt))));
    }

    /// <summary>Mean pace between steps, the recent half counting double each half-life, and its relative doubt.</summary>
    private static (double Mean, double Doubt) WeightedPaces(double[] at, double[] done)
    {
        var halfLife = (at[^1] - at[0]) / 3;
        var (moved, took, squares, weights) = (0.0, 0.0, 0.0, 0.0);
        for (var i = 1; i < at.Length; i++)
        {
            var weight = Math.Pow(0.5, (at[^1] - at[i]) / halfLife);
            moved += weight * (done[i] - done[i - 1]);
            took += weight * (at[i] - at[i - 1]);
        }
        var mean = moved / took;
        for (var i = 1; i < at.Length; i++)
        {
            var weight = Math.Pow(0.5, (at[^1] - at[i]) / halfLife) * (at[i] - at[i - 1]);
            var pace = (done[i] - done[i - 1]) / Math.Max(at[i] - at[i - 1], 1e-9);
            squares += weight * Math.Pow(pace / mean - 1, 2);
            weights += weight;
        }
        return (mean, Math.Sqrt(squares / weights) / Math.Sqrt(Math.Min(at.Length - 1, 4)));
    }

    private static TimeSpan Seconds(double seconds) => TimeSpan.FromSeconds(Math.Clamp(seconds, 0, 3.2e7));

    private static TimeSpan Shorter(TimeSpan a, TimeSpan b) => a < b ? a : b;

    private static TimeSpan Longer(TimeSpan a, TimeSpan b) => a > b ? a : b;

    private static TimeSpan Later(TimeSpan value, TimeSpan floor) => value > floor ? value : floor;
}
