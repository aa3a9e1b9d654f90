using Nailcrow.Core.Procedures;

namespace Nailcrow.Core.Swaps.Following.Leaving;

/// <summary>What was opened, switched or slid out by the answers of several runs of one ticket, and is not put right yet.</summary>
internal static class OpenThings
{
    public static HashSet<string> After(params IEnumerable<Interrupted> runs)
    {
        var open = new HashSet<string>();
        var done = runs.SelectMany(r => r.Run.Visits.Select(v => (v.At, Visit: v, Step: r.Sheet.Step(v.Step))));
        foreach (var (_, visit, step) in done.OrderBy(d => d.At))
        {
            if (step is null || !(visit.Branch == RunStep.Done || visit.Overruled))
                continue;
            if (step.OpensThing() is { } opened)
                open.Add(opened);
            if (step.ClosesThing() is { } closed)
                open.Remove(closed);
        }
        return open;
    }
}
