using Nailcrow.Core.Procedures;

namespace Nailcrow.Core.Swaps.Learning;

/// <summary>How one step of a procedure goes in practice, so that it can be made better.</summary>
/// <param name="Runs">Tickets on which it was visited.</param>
/// <param name="Median">Half of the visits took no longer.</param>
/// <param name="Slow">Nine of ten visits took no longer.</param>
/// <param name="Again">Visits beyond the first on the same ticket, as a share of all visits: people came back to it.</param>
/// <param name="Otherwise">Visits that ended in something else than going straight on, as a share of all visits.</param>
/// <param name="Overruled">Visits that a lead overruled.</param>
public sealed record StepTiming(
    string Step,
    int Runs,
    int Visits,
    TimeSpan Median,
    TimeSpan Slow,
    double Again,
    double Otherwise,
    int Overruled
)
{
    // With fewer runs a single coffee break makes the median; it is shown, and called too early to tell.
    private const int FewestRuns = 5;

    private static readonly string[] Straight = [RunStep.Done, "yes", "exact"];

    public bool TooEarlyToTell => Runs < FewestRuns;

    /// <summary>People get stuck where they come back, leave, or need a lead, more than now and then.</summary>
    public bool PeopleGetStuck => !TooEarlyToTell && (Again > 0.2 || Otherwise > 0.2 || Overruled > 0);

    public static IReadOnlyList<StepTiming> Of(IEnumerable<StepVisit> visits) =>
        [.. visits.GroupBy(v => v.Step).Select(g => OfStep(g.Key, [.. g]))];

    private static StepTiming OfStep(string step, IReadOnlyList<StepVisit> visits)
    {
        var took = visits.Select(v => v.Took).Order().ToList();
        var runs = visits.Select(v => v.Ticket).Distinct().Count();
        return new(
            step,
            runs,
            visits.Count,
            Rank(took, 0.5),
            Rank(took, 0.9),
            (visits.Count - runs) / (double)visits.Count,
            visits.Count(v => !v.Overruled && !Straight.Contains(v.Branch)) / (double)visits.Count,
            visits.Count(v => v.Overruled)
        );
    }

    /// <summary>Nearest rank: the smallest value that at least the share of all does not exceed.</summary>
    private static TimeSpan Rank(IReadOnlyList<TimeSpan> sorted, double share) =>
        sorted[Math.Max(0, (int)Math.Ceiling(share * sorted.Count) - 1)];
}
