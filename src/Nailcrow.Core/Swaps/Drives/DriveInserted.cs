using Nailcrow.Core.Appliances;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>A drive went into a bay, with the serial on it.</summary>
public sealed record DriveInserted(string Bay, string Serial) : FactBody
{
    public override string Told() => $"Inserted {Serial} into bay {Bay}";

    public override IReadOnlyCollection<Role> Writers() => OnSite;

    public override string? Problem(Ticket ticket) =>
        ticket.Latest is { } latest && latest.BayLabelled(Bay) is null ? NoSuchBay.Sentence(Bay, latest)
        : SerialNumber.Parse(Serial) is Parsed<SerialNumber>.Refused no ? no.Reason
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        var inserted = ticket with
        {
            Custody = ticket.Custody.Move(serial, new(HolderKind.Bay, Bay), stamp),
            Swap = ticket.Swap with { InSerial = serial, InsertedAt = stamp.At, Bay = IsAdded(ticket) ? Bay : ticket.Swap.Bay },
        };
        if (ticket.Swap.WrongOut is { } wrong)
            inserted = inserted.Raise(stamp, "inserted", $"{serial} went in while {wrong}, pulled by mistake, was still out.");
        if (ticket.Part is { } part && !ticket.Parts.Exists(p => p.Serial == serial))
            inserted = inserted.Raise(stamp, "inserted", $"{serial} went in; {part.Serial} was reserved for this ticket.");
        if (!IsAdded(ticket) && ticket.Swap.Bay is { } bay && bay != Bay)
            inserted = inserted.Raise(stamp, "inserted", $"{serial} went into bay {Bay}; the drive came out of bay {bay}.");
        return inserted;
    }

    /// <summary>Nothing came out of this bay before.</summary>
    private static bool IsAdded(Ticket ticket) => ticket is { OnlyAdds: true, Swap.OutSerial: null };
}
