using Nailcrow.Core.Appliances;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Risk;

/// <summary>
/// Drives that served when a machine was last looked at and do not any more, and that no open ticket of it is about: a fault of
/// their own, which must not live on as a line in somebody else's ticket.
/// </summary>
public static class FurtherFault
{
    /// <summary>What is reported of them, as one fault, since drives that go at once have one cause; null where there are none.</summary>
    /// <param name="ticket">With the new look as its latest.</param>
    /// <param name="beside">The other open tickets of the machine.</param>
    public static FaultReported? Of(Ticket ticket, IReadOnlyList<Ticket> beside)
    {
        if (ticket is not { Report: { } report, Snapshots: [.., var now] })
            return null;
        // As long as nobody has read which drive is out, what is gone is first of all what somebody has in their hand.
        if (beside.Append(ticket).Any(IsOutUnread))
            return null;
        var failed = Failed(ticket, now).Where(was => !beside.Append(ticket).Any(t => IsAbout(t, was))).ToList();
        if (failed.Count == 0)
            return null;
        var (first, one) = (failed[0], failed.Count == 1);
        var bays = string.Join(", ", failed.Select(b => $"{b.Label} ({b.Serial})"));
        return report with
        {
            Job = JobKind.Fault,
            Symptom =
                ticket.Snapshots.Count == 1
                    ? $"Bay{(one ? "" : "s")} {bays} had failed when {TicketNumber.Text(ticket.Number)} first saw the machine."
                    : $"Bay{(one ? "" : "s")} {bays} served until {TicketNumber.Text(ticket.Number)} saw the machine and "
                        + $"{(one ? "does" : "do")} not any more.",
            Bay = first.Label,
            Serial = first.Serial,
            Since = now.TakenAt,
            SeenOn = ticket.Number,
        };
    }

    /// <summary>
    /// What served at the look before and does not any more. The first look of a job on drives that work is held against what it
    /// takes for granted: that none has failed.
    /// </summary>
    private static IEnumerable<Bay> Failed(Ticket ticket, Snapshot now) =>
        ticket.Snapshots.Count == 1
            ? ticket.Report?.Job == JobKind.Fault
                ? []
                : now.Bays.Where(b => b.Serial is not null && (b.Role == BayRole.Dropped || b.Health == DriveHealth.Faulted))
            : (Baseline(ticket)?.Bays ?? [])
                .Where(was => was is { Serial: not null, Role: BayRole.Member or BayRole.Spare, Health: not DriveHealth.Faulted })
                .Where(was => Fails(was, now));

    private static bool IsOutUnread(Ticket ticket) => HandsIn.Since(ticket) is not null && ticket.Swap.OutSerial is null;

    /// <summary>The last look before this one, leaving out those that were taken while somebody had an unread drive in their hand.</summary>
    private static Snapshot? Baseline(Ticket ticket)
    {
        var opened = ticket.Run?.Visits.Find(v => ticket.Sheet?.Step(v.Step) is { Gate: GateFact.PullNotFatal or GateFact.Released })?.At;
        return ticket
            .Snapshots.Take(ticket.Snapshots.Count - 1)
            .LastOrDefault(s => !(s.TakenAt > opened && s.TakenAt < ticket.Swap.PulledAt));
    }

    private static bool Fails(Bay was, Snapshot now) =>
        now.Holding(was.Serial) is { } there
            ? there.Role == BayRole.Dropped || there.Health == DriveHealth.Faulted
            : now.BayLabelled(was.Label) is { Role: BayRole.Empty };

    private static bool IsAbout(Ticket ticket, Bay was)
    {
        var serial = was.Serial ?? "";
        return ticket.Swaps.Any(s => Is(s.OutSerial) || Is(s.InSerial) || Is(s.WrongOut) || s.NearMisses.Exists(n => Is(n.Serial)))
            || ticket.Parts.Exists(p => Is(p.Serial))
            || ticket.Chosen.Exists(Is)
            || ticket.Sheet?.Drives?.Any(d => Is(d.Serial)) == true
            || (
                ticket.Report?.Serial is { } reported
                    ? SerialComparison.Between(reported, serial).Outcome is SerialOutcome.Exact or SerialOutcome.Fragment
                : ticket.Report?.Bay is { } bay ? string.Equals(bay, was.Label, StringComparison.OrdinalIgnoreCase)
                // "It beeps" may be about any of them, until a sheet says which it is for.
                : ticket.Sheet is null
            );

        bool Is(string? known) => known is not null && SerialComparison.Between(known, serial).Outcome == SerialOutcome.Exact;
    }
}
