using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns;

/// <summary>The drive was handed to a carrier.</summary>
public sealed record ReturnSent(string Serial, string Carrier, string? Tracking = null) : FactBody
{
    public override string Told() => $"{Serial} given to {Carrier}{(Tracking is { } tracking ? $", {tracking}" : "")}";

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        var moved = ticket.HandedTo(serial, new(HolderKind.Carrier, Carrier), stamp);
        var open = ticket.Returns.Find(r => r.Serial == serial);
        return open is null
            ? moved.Raise(stamp, "return", $"{serial} was given to {Carrier} without a return being open for it.")
            : moved with
            {
                Returns = ticket.Returns.Replace(open, open with { Carrier = Carrier, Tracking = Tracking, SentAt = stamp.At }),
            };
    }
}
