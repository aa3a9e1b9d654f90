using Nailcrow.Core.People;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following;

/// <summary>A run sheet was made for this ticket. It is kept whole, so the record shows what the engineer was told to do.</summary>
public sealed record SheetCompiled(RunSheet Sheet) : DecisionBody
{
    public override string Told() => $"Run sheet made: {Sheet.Title}, bay {Sheet.TargetBay}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Lead];

    public override string? ByServiceOnly() =>
        "A run sheet is made by the service, from a procedure that is published and proved: POST /api/tickets/{number}/sheet, or 'nailcrow run start'.";

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) => NotNow(ticket, Sheet.IsRecovery);

    /// <summary>Why no sheet is started now, whichever it would be; null where one may be.</summary>
    internal static string? NotNow(Ticket ticket, bool isRecovery) =>
        isRecovery
            ? ticket.Interrupted.Count > 0
                ? "A sheet is interrupted already; finish the recovery first."
                : null
            : ticket.Interrupted.Count > 0
                ? "A recovery is under way; finish it, and the sheet that was interrupted goes on."
                : ticket.Run is { IsFinished: false, Visits.Count: > 0 }
                    ? "A run is under way; finish it, or call for help on it."
                    : ticket.Swap.InSerial is not null && ticket.Run is not { HandedOver: true }
                        ? "The swap on this ticket is done; a further drive gets a ticket of its own."
                        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Sheet = Sheet,
            Run = Run.Begin(Sheet, stamp.At),
            Interrupted =
                Sheet.IsRecovery && ticket is { Sheet: { } left, Run: { } run } && !(run.IsFinished && !run.HandedOver)
                    ? ticket.Interrupted.Add(new(left, run))
                    : ticket.Interrupted,
        };
}
