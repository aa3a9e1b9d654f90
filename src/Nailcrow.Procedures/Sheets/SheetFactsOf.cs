using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Procedures.Sheets;

/// <summary>What a ticket tells the compiler of its sheet.</summary>
public static class SheetFactsOf
{
    /// <param name="reached">The service reaches the machine by wire.</param>
    /// <param name="location">Where it stands now; null where nobody has said since the report.</param>
    public static SheetFacts Ticket(Ticket ticket, ApplianceModel model, string chassisSerial, bool reached, string? location = null)
    {
        var report = ticket.Report ?? throw new ArgumentException("A ticket without a report has no machine.", nameof(ticket));
        var target = SwapTarget.Meant(ticket).Is(out var found, out _) ? found : null;
        var drives = Drives(ticket, target).ToList();
        var now = ticket.Latest;
        // Once its drive is out, its bay tells what became of it: empty, or holding a new drive that something else made needless.
        var first =
            now?.Holding(drives.FirstOrDefault()?.Serial)
            ?? (ticket.Swap.InSerial is null ? null : now?.BayLabelled(drives.FirstOrDefault()?.Bay))
            ?? target?.Bay;
        var danger = Danger.Of(ticket);
        // Of the drives it is for: what the report names may be another one, or none.
        var array =
            (ticket.OnlyAdds ? target?.Array : null)
            ?? (now is not null && first is not null ? SwapTarget.Concerned(now, first) : null)
            ?? now?.Arrays.FirstOrDefault(a => a.Name == danger.Array);
        var tookOver = array is not null && now!.IsWhole(array) && !ticket.OnlyAdds && first is { Role: not BayRole.Member }; // an array comes from a snapshot
        var space = Space.Of(ticket);
        var facts = new TicketFacts(
            report.Job,
            first?.Role ?? BayRole.Dropped,
            first?.Health ?? DriveHealth.Unknown,
            ticket.DrivesWanted,
            danger.Help,
            tookOver,
            reached,
            report.Job == JobKind.Growth || space?.Forecast > space?.Before
        );
        var name = array?.Name ?? "the array";
        return new(model, report.Asset, chassisSerial, report.Site, location ?? report.Location, name, drives, facts, space);
    }

    /// <summary>
    /// Once a drive was moved, the one that the run is about: it is in its bay no more, and a recovery is about it all the same. Before,
    /// the chosen ones, else the one the ticket is about; each with the part that is set aside for it.
    /// </summary>
    private static IEnumerable<SheetDrive> Drives(Ticket ticket, SwapTarget? target)
    {
        if (ticket is { HasMoved: true, Sheet: { } sheet } && sheet.DriveOf(sheet.Step(ticket.Run?.Current)) is { Bay.Length: > 0 } current)
            return [current];
        if (ticket.OnlyAdds)
            return target?.Bay is { } empty ? [new(empty.Label, "", null, ticket.PartToFit?.Serial)] : [];
        if (ticket.Chosen.Count == 0)
            return target?.Bay is { Serial: { } serial } bay ? [new(bay.Label, serial, bay.Name, ticket.PartToFit?.Serial)] : [];
        return ticket
            .Chosen.Select(
                (s, i) =>
                    ticket.Latest?.Holding(s) is { } held
                        ? new SheetDrive(
                            held.Label,
                            held.Serial ?? s,
                            held.Name,
                            ticket.Parts.ElementAtOrDefault(i) is { GivenUp: null } part ? part.Serial : null
                        )
                        : null
            )
            .OfType<SheetDrive>();
    }
}
