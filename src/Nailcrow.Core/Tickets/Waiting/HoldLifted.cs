using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Waiting;

public sealed record HoldLifted : DecisionBody
{
    public override string Told() => "Hold lifted";

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        ticket.HoldReason is null ? "The ticket is not on hold." : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            HoldReason = null,
            HoldUntil = null,
            Holds = [.. ticket.Holds.Select(h => h.To is null ? h with { To = stamp.At } : h)],
        };
}
