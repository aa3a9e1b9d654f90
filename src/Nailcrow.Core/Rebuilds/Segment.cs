namespace Nailcrow.Core.Rebuilds;

/// <summary>Readings that belong together: one phase, never falling back.</summary>
/// <param name="FellBack">The one before it was of the same phase, and further.</param>
internal sealed record Segment(RebuildPhase Phase, bool FellBack, IReadOnlyList<Reading> Readings, Display Display)
{
    public Reading Last => Readings[^1];

    /// <summary>
    /// The readings at which progress was made, in order; those between say nothing that these do not. Where one person rounds 62.4
    /// up to 63 and the next reads 62.5, the rounded one is passed over.
    /// </summary>
    public IReadOnlyList<Reading> Steps { get; } = Rising(Readings, Display);

    private static List<Reading> Rising(IReadOnlyList<Reading> readings, Display display)
    {
        var finest = readings.Min(display.StepOf);
        var steps = new List<Reading>();
        foreach (var reading in readings)
        {
            var rounding = display.StepOf(reading);
            if (steps.Count == 0 || reading.Percent - (rounding > finest ? rounding : 0) > steps[^1].Percent)
                steps.Add(reading);
        }
        return steps;
    }

    // No bar has a thousand blocks; below that a step is as it was seen, and there are not more blocks to try than that.
    private const decimal FinestBlock = 0.1m;

    /// <summary>
    /// The smallest step the display takes, in percent points. A bar of blocks jumps by its block: that is seen where everything
    /// shown is a multiple of the smallest jump. With one jump nobody can know, and it may all be one block.
    /// </summary>
    public decimal SmallestStep()
    {
        var shown = Steps.Select(r => r.Percent ?? 0).Distinct().ToList(); // readings of a segment have one
        var fine = Readings.Min(Display.StepOf);
        if (shown.Count < 2)
            return fine;
        var jump = shown.Zip(shown.Skip(1), (a, b) => b - a).Min();
        if (shown.Count == 2 || jump < FinestBlock)
            return jump;
        var furthest = shown[^1];
        for (var blocks = Math.Floor(furthest / (jump + fine)); blocks <= Math.Ceiling(furthest / Math.Max(jump - fine, fine)); blocks++)
            if (blocks > 0 && furthest / blocks is var block && block >= 3 * fine && shown.TrueForAll(p => IsMultiple(p, block, fine)))
                return block;
        return fine;
    }

    private static bool IsMultiple(decimal percent, decimal of, decimal within) =>
        Math.Abs(percent - of * Math.Round(percent / of)) <= within * 0.6m; // half a step of rounding, and what the block itself is off by
}
