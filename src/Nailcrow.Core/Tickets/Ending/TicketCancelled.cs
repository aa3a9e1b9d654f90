using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Core.Tickets.Ending;

public sealed record TicketCancelled(string Reason) : DecisionBody
{
    public override string Told() => $"Cancelled: {Reason}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Dispatcher, Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        string.IsNullOrWhiteSpace(Reason) ? "Cancelling takes a reason."
        : ticket.HasMoved ? "A drive has been moved; this ticket can be closed, not cancelled."
        : ticket.Custody.Open.Any()
            ? $"Still out: {string.Join(", ", ticket.Custody.Open.Select(o => $"{o.Serial} with {o.Holder}"))}. Return it first."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        LateFact.LeftBehind(
            SiteVisits.Ended(ticket, _ => true, null, VisitEnd.NotSaid) with
            {
                Cancelling = this,
                EndedAt = stamp.At,
            },
            stamp
        );
}
