using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Linking;

/// <summary>
/// It is the same fault as another open ticket of the machine: this one ends, its evidence goes over, and nobody works on one
/// fault twice.
/// </summary>
public sealed record TicketJoined(long Into) : DecisionBody
{
    public override string Told() => $"Joined to {TicketNumber.Text(Into)}: the same fault";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Dispatcher, Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        Into == ticket.Number ? "A ticket is not joined to itself; name the other one."
        : ticket.Engineer is { } other && other != actor.Name && !actor.MayActAs([Role.Dispatcher, Role.Lead])
            ? $"{TicketNumber.Text(ticket.Number)} is with {other}: {other}, a dispatcher or a lead joins it."
        : ticket.HasMoved ? "A drive has been moved here; join the other one to this."
        : ticket.Custody.Open.Any()
            ? $"Still out: {string.Join(", ", ticket.Custody.Open.Select(o => $"{o.Serial} with {o.Holder}"))}. Return it first, or join the other one to this."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var cancelled = new TicketCancelled($"The same fault as {TicketNumber.Text(Into)}.").Fold(ticket, stamp);
        return cancelled with { Links = cancelled.Links.Add(new(Into, LinkKind.JoinedTo, stamp.At, stamp.By)) };
    }
}
