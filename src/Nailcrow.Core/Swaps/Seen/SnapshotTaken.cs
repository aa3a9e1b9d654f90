using Nailcrow.Core.Appliances;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Seen;

/// <summary>All bays were looked at. The last one before the first pull is "before", the last one after the insert "after".</summary>
public sealed record SnapshotTaken(Snapshot Snapshot) : FactBody
{
    public override string Told() =>
        $"Snapshot of {Snapshot.Bays.Count} bays, {(Snapshot.Source == SeenByPerson.Source ? "typed by hand" : $"from {Snapshot.Source}")}";

    public override string? Problem(Ticket ticket) => SnapshotProblems.In(Snapshot).FirstOrDefault();

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var taken = Sized(ticket) with { TakenAt = stamp.At };
        var folded = ticket with
        {
            Snapshots = ticket.Snapshots.Add(taken),
            LastLook = new(stamp.At, stamp.By),
            Evidence = [.. ticket.Evidence.Select(e => e.Known(taken))],
            Before = ticket.HasMoved || IsOutAlready(ticket, taken) ? ticket.Before : taken,
            After = ticket.Swap.InSerial is null ? ticket.After : taken,
            Readings = RebuildIsOver(ticket, taken) is { } done ? ticket.Readings.Add(done) : ticket.Readings,
        };
        return ticket.Report is { Bay: { } bay, Serial: { } serial } && !ticket.HasMoved && ticket.Latest is null
            ? Agrees(folded, taken, bay, serial, stamp)
            : folded;
    }

    /// <summary>What a person types has no sizes: a drive's is known from the part it is, or from when it was last seen.</summary>
    private Snapshot Sized(Ticket ticket) =>
        Snapshot.Bays.All(b => b.Serial is null || b.Bytes is not null)
            ? Snapshot
            : Snapshot with
            {
                Bays =
                [
                    .. Snapshot.Bays.Select(b => b is { Serial: { } serial, Bytes: null } ? b with { Bytes = SizeOf(ticket, serial) } : b),
                ],
            };

    private static long? SizeOf(Ticket ticket, string serial) =>
        ticket.Parts.Find(p => SerialComparison.Between(p.Serial, serial).Outcome == SerialOutcome.Exact) is { } part
            ? ByteSize.Labelled(part.Bytes)
            : Target.LastSeen(ticket, serial)?.Bytes;

    /// <summary>
    /// The drive that is to come out was in its bay and is no more: hands were quicker than the pen, and what is seen now is not
    /// "before".
    /// </summary>
    private static bool IsOutAlready(Ticket ticket, Snapshot taken) =>
        HandsIn.Since(ticket) is not null
        && ticket.Sheet?.DriveOf(ticket.Sheet.Step(ticket.Run?.Current)).Serial is { } serial
        && ticket.Before?.Holding(serial) is not null
        && taken.Holding(serial) is null;

    /// <summary>The report may name bay and serial; if the machine has that serial elsewhere, nobody should go by the bay.</summary>
    private static Ticket Agrees(Ticket ticket, Snapshot taken, string bay, string serial, Stamp stamp) =>
        taken.Holding(serial) is { } found && found.Label != bay
            ? ticket.Raise(stamp, "report", $"The report says {serial} is in bay {bay}; the machine has it in bay {found.Label}.")
            : ticket;

    /// <summary>An array that is whole with the new drive in it has been rebuilt, whether or not anybody saw it move.</summary>
    private static Reading? RebuildIsOver(Ticket ticket, Snapshot taken) =>
        ticket.Swap.InSerial is { } serial
        && ticket.Readings.LastOrDefault()?.IsTheEnd() != true
        && taken.Holding(serial) is { Role: BayRole.Member } bay
        && taken.ArrayOf(bay) is { } array
        && taken.IsWhole(array)
            ? new(taken.TakenAt, array.Name, Progress.Done, RebuildPhase.Rebuilding, null, taken.Source)
            : null;
}
