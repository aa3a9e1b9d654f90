using Nailcrow.Core.People;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Ending;

/// <summary>
/// A part that was for this ticket was moved by another one: the service notes it on this one too, in the same breath. It is not this
/// ticket's to return any more; whose it is, is for a lead to settle.
/// </summary>
/// <param name="Ticket">The ticket that moved it.</param>
/// <param name="Asset">The machine, where it went into a bay of one.</param>
public sealed record PartUsedElsewhere(string Serial, long Ticket, Holder To, string? Asset = null) : FactBody
{
    public override string Told() => $"{TicketNumber.Text(Ticket)} has {Serial}: {Where}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Admin];

    public override string? ByServiceOnly() =>
        "That another ticket has a part is noted by the service itself; say on that ticket what was done, or give the part up here.";

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        var without = ticket.Parts.Find(p => p.Serial == serial && p.GivenUp is null) is { } part
            ? PartGivenUp.Without(ticket, part, NoReplacement.NotHere)
            : ticket;
        return (
            without with
            {
                Custody = without.Custody.Follow(serial, To, stamp, Ticket),
                Returns = without.Returns.RemoveAll(r => r.Serial == serial && r.ArrivedAt is null),
            }
        ).Raise(
            stamp,
            "serial",
            $"{serial} was this ticket's; by {TicketNumber.Text(Ticket)} it is {Where} now. Settle which record is wrong."
        );
    }

    private string Where => To.Kind == HolderKind.Bay && Asset is not null ? $"in {To} of {Asset}" : $"with {To}";
}
