using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets;

public sealed record PutOnHold(string Reason) : DecisionBody
{
    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        string.IsNullOrWhiteSpace(Reason) ? "Say why the ticket is on hold; whoever looks next needs to know what it waits for."
        : ticket.HoldReason is { } reason ? $"Already on hold: {reason}"
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { HoldReason = Reason };
}
