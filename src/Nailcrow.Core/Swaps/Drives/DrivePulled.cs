using Nailcrow.Core.Appliances;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>A drive came out of a bay, with the serial on it.</summary>
public sealed record DrivePulled(string Bay, string Serial) : FactBody
{
    public override string Told() => $"Pulled {Serial} from bay {Bay}";

    public override IReadOnlyCollection<Role> Writers() => OnSite;

    public override string? Problem(Ticket ticket) =>
        ticket.Latest is { } latest && latest.BayLabelled(Bay) is null ? NoSuchBay.Sentence(Bay, latest)
        : SerialNumber.Parse(Serial) is Parsed<SerialNumber>.Refused no ? no.Reason
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        var expected = ticket.Sheet?.DriveOf(ticket.Sheet.Step(ticket.Run?.Current)).Serial ?? ticket.Report?.Serial;
        var wrong =
            expected is not null
            && SerialComparison.Between(serial, expected, dashesCount: ticket.Sheet is { ReadingRules: 0 }).Outcome != SerialOutcome.Exact;
        var held = ticket with { Custody = ticket.Custody.Move(serial, new(HolderKind.Engineer, stamp.By), stamp) };
        if (held.Swap.OutSerial is { } already && already != serial)
            held = held.Raise(stamp, "pulled", $"{serial} was pulled as well; {already} had already come out on this ticket.");
        held = OwnDoing.Explained(held, Bay, serial);
        if (held.Before?.Holding(serial) is { } there) // what the machine says of it, it says of the bay where its software has it
            held = OwnDoing.Explained(held, there.Label, serial);
        if (wrong)
            return held with { Swap = held.Swap with { PulledAt = held.Swap.PulledAt ?? stamp.At, WrongOut = serial } };
        return held with { Swap = held.Swap with { Bay = Bay, OutSerial = expected ?? serial, PulledAt = stamp.At } };
    }
}
