using Nailcrow.Core.Appliances;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>The new drive came out of its bay again: it is dead, or not taken. The bay is as empty as after the pull.</summary>
public sealed record DriveWithdrawn(string Bay, string Serial) : FactBody
{
    public override string Told() => $"Took {Serial} out of bay {Bay} again";

    public override IReadOnlyCollection<Role> Writers() => OnSite;

    public override string? Problem(Ticket ticket) =>
        ticket.Latest is { } latest && latest.BayLabelled(Bay) is null ? NoSuchBay.Sentence(Bay, latest)
        : SerialNumber.Parse(Serial) is Parsed<SerialNumber>.Refused no ? no.Reason
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        if (ticket.Swap.InSerial != serial)
            return ticket.Raise(
                stamp,
                "withdrawn",
                $"{serial} was taken out of bay {Bay}; what went in there was {ticket.Swap.InSerial ?? "nothing"}."
            );
        var held = ticket with
        {
            Custody = ticket.Custody.Move(serial, new(HolderKind.Engineer, stamp.By), stamp),
            Swap = ticket.Swap with { InSerial = null, InsertedAt = null, ScannedPart = null, StartedByHandAt = null },
        };
        return OwnDoing.Explained(held, Bay, serial);
    }
}
