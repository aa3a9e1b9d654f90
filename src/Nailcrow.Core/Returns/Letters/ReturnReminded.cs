using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Letters;

/// <summary>Somebody is reminded by mail of a drive that has to be somewhere by a day.</summary>
/// <param name="To">A person of ours, by name; their address is no part of the record.</param>
public sealed record ReturnReminded(string Serial, string To, DateOnly DueBy) : FactBody
{
    public override string Told() => $"{To} reminded of {Serial}, due on {Carrying.Parcel.Day(DueBy)}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Admin];

    public override string? ByServiceOnly() => "The service reminds by itself; what was said otherwise is written as a note.";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Letters = ticket.Letters.Add(
                new(stamp.Entry, To, $"a reminder of {Serial}, due on {Carrying.Parcel.Day(DueBy)}", stamp.At, stamp.By, Serial)
            ),
        };
}
