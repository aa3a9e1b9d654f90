using Nailcrow.Core.Appliances;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>The same drive went back into its bay on purpose: it was dropped and is good, so its contacts were looked at.</summary>
public sealed record DriveReseated(string Bay, string Serial) : FactBody
{
    public override string Told() => $"Seated {Serial} again in bay {Bay}";

    public override IReadOnlyCollection<Role> Writers() => OnSite;

    public override string? Problem(Ticket ticket) =>
        ticket.Latest is { } latest && latest.BayLabelled(Bay) is null ? NoSuchBay.Sentence(Bay, latest)
        : SerialNumber.Parse(Serial) is Parsed<SerialNumber>.Refused no ? no.Reason
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        return ticket with
        {
            Custody = ticket.Custody.Move(serial, new(HolderKind.Bay, Bay), stamp),
            Swap = ticket.Swap with { Bay = Bay, OutSerial = ticket.Swap.OutSerial ?? serial, InSerial = serial, InsertedAt = stamp.At },
        };
    }
}
