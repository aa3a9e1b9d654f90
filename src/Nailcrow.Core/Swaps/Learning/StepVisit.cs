using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps.Learning;

/// <summary>One visit of one step on a run that is over.</summary>
/// <param name="Step">The step as it is called in the procedure, whichever drive it was about.</param>
public sealed record StepVisit(
    long Ticket,
    int Nth,
    string Procedure,
    string Version,
    string Step,
    TimeSpan Took,
    string Branch,
    bool Overruled,
    DateTimeOffset At
)
{
    /// <summary>The visits of a ticket's run, once it is over.</summary>
    public static IEnumerable<StepVisit> Of(Ticket ticket) =>
        ticket is { Sheet: { } sheet, Run: { IsFinished: true } run }
            ? run.Visits.Select(
                (v, nth) =>
                    new StepVisit(
                        ticket.Number,
                        nth,
                        sheet.Procedure,
                        sheet.Version,
                        v.Step.Split('.')[0],
                        v.At - (v.CameAt ?? v.At),
                        v.Branch,
                        v.Overruled,
                        v.At
                    )
            )
            : [];
}
