using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following.Guarding;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps.Following.Leaving;

/// <summary>Where a lead's no leads from a call.</summary>
internal static class LeadsNo
{
    /// <summary>They were called from this step and said no, and nothing keeps whoever called from going where that leads.</summary>
    public static bool IsTaken(Ticket ticket, Run run, RunStep step) =>
        step.Kind == StepKind.Call && ticket.Help is { GoAhead: false } no && no.At >= run.Since && KeepsOpen(ticket, run, step) is null;

    /// <summary>Going on from this call ends the run: they said no, and the sheet says nothing of what then.</summary>
    public static bool EndsHere(Ticket ticket, Run run, RunStep step) =>
        step.Leading(RunStep.Refused) is null && IsTaken(ticket, run, step);

    /// <summary>
    /// A call that says nothing of a no ends the run there, and what is left is the lead's; null where it says where a no leads, or where
    /// it may end. Else what has to be put right before anybody leaves.
    /// </summary>
    public static string? KeepsOpen(Ticket ticket, Run run, RunStep step)
    {
        if (ticket.Sheet is not { } sheet || step.Leading(RunStep.Refused) is not null)
            return null;
        var runs = ticket.Interrupted.Add(new(sheet, run)).ConvertAll(MonitoredRun.Of); // what a recovery interrupted would end with it
        var open = runs.SelectMany(r => r.Open).Distinct().ToList();
        return runs.Exists(r => r.IsOut) ? "A drive is out."
            : open.Count > 0 ? $"{string.Join(" and ", open)} {(open.Count == 1 ? "is" : "are")} not put right."
            : null;
    }

    /// <summary>The answer that the no comes to.</summary>
    public static StepAnswer Leads(RunStep step) => step.Leading(RunStep.Refused) ?? new(RunStep.Refused, "", StepAnswer.HandOver);
}
