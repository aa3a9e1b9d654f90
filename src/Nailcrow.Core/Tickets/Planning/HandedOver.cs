using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Planning;

/// <summary>
/// One engineer goes and another goes on: ticket, run, parts and old drives in one entry of both. What the first one did stays
/// theirs in the record.
/// </summary>
/// <param name="Note">What the other one has to know: keys, who let one in, what is open.</param>
public sealed record HandedOver(string From, string To, string? Note = null) : DecisionBody
{
    public override string Told() => $"{From} handed over to {To}{(Note is { } note ? $": {note}" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Dispatcher, Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        ticket.Engineer is not { } holder ? "Nobody has the ticket; assign an engineer."
        : From != holder ? $"{TicketNumber.Text(ticket.Number)} is with {holder}, not with {From}."
        : To == From ? $"{To} has it already."
        : actor.Name != holder && !actor.MayActAs([Role.Dispatcher, Role.Lead]) ? $"{holder} hands it over, or a dispatcher or a lead does."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var held = ticket.Custody.Now.Where(c => c.Holder == new Holder(HolderKind.Engineer, From)).Select(c => c.Serial).ToList();
        return SiteVisits.Ended(
            ticket,
            v => v.Engineer == From,
            stamp.By == From ? stamp.At : null,
            stamp.By == From ? VisitEnd.HandedOver : VisitEnd.NotSaid,
            Note
        ) with
        {
            Engineer = To,
            Custody = held.Aggregate(ticket.Custody, (custody, serial) => custody.Move(serial, new(HolderKind.Engineer, To), stamp)),
            Parts = [.. ticket.Parts.Select(p => p.IssuedTo == From ? p with { IssuedTo = To } : p)],
            Visit = ticket.Visit is { } visit && visit.Engineer == From ? visit with { Engineer = To } : ticket.Visit,
        };
    }
}
