using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Issuing;

/// <summary>Stores hands the replacement to an engineer.</summary>
public sealed record PartIssued(string Serial, string To) : FactBody
{
    public override string Told() => $"Issued {Serial} to {To}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Stores, Role.Dispatcher, Role.Lead];

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        var moved = ticket with { Custody = ticket.Custody.Move(serial, new(HolderKind.Engineer, To), stamp) };
        return ticket.Parts.Find(p => p.Serial == serial) is { } part
            ? moved with
            {
                Parts = ticket.Parts.Replace(part, part with { IssuedTo = To }),
            }
            : moved.Raise(stamp, "issued", $"{serial} was issued to {To}; {ticket.Part?.Serial ?? "nothing"} was reserved.");
    }
}
