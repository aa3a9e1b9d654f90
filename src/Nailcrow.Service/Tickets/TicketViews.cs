using Nailcrow.Client.Tickets;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Gates;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Service.Appliances;
using Nailcrow.Service.Procedures;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Service.Tickets;

/// <summary>A ticket as pages and commands show it.</summary>
internal sealed class TicketViews(ReferenceBook book, ProcedureLibrary library, BaySightings sightings, TimeProvider time)
{
    // A chart is some 800 pixels wide, and a ticket's answer goes to phones.
    private const int MostReadings = 300;

    public async Task<TicketView> OfAsync(TicketRecord record, CancellationToken ct)
    {
        var ticket = record.Ticket;
        var report = ticket.Report ?? FaultReported.Lost;
        var known = await book.FindAsync(report.Asset, ct);
        var now = time.GetUtcNow();
        var danger = Danger.Of(ticket);
        return new(
            ticket.Number,
            record.Head,
            report,
            ticket.ReceivedAt ?? record.Arrived[0].RecordedAt,
            ticket.Stage,
            ticket.Engineer,
            ticket.HoldReason,
            ticket.Help,
            ticket.ArrivedAt,
            ticket.EndedAt,
            ticket.Evidence,
            ticket.Backup,
            ticket.BackupDetail,
            danger,
            ChancesOf(ticket, danger, known?.Model),
            Exposure.Of(ticket),
            Deadline.Of(ticket, now),
            ticket.Visit,
            NextAction.Of(ticket, danger),
            ticket.Before,
            ticket.Latest,
            ticket.After,
            ticket is { Before: { } before, Latest: { } latest } ? SnapshotComparison.Between(before, latest) : [],
            ticket.LocatorOn,
            ticket.Part,
            ticket.Parts,
            ticket.Chosen,
            WorstFirst.Of(ticket, danger),
            RunOf(ticket, now, await library.WithdrawnBecauseAsync(ticket.Sheet, ct), await MapWarningAsync(ticket, ct)),
            ticket.Swap,
            ticket.EarlierSwaps,
            ticket.Photos,
            RebuildOf(ticket, known?.Model, now),
            ticket.Custody.Moves,
            ticket.Returns,
            ticket.Discrepancies,
            ticket.SignedOffBy,
            ClosingCondition.Of(ticket),
            known?.Model,
            known?.Drawing,
            known?.Site.Zone,
            known?.Site.Access,
            known?.Appliance.Address is not null
        );
    }

    private static LossChances? ChancesOf(Ticket ticket, Danger danger, ApplianceModel? model) =>
        ticket.Latest is { } now && model is not null && now.Arrays.FirstOrDefault(a => a.Name == danger.Array) is { } array
            ? LossChances.Of(now, array, model.MegabytesPerSecond)
            : null;

    public static RebuildView RebuildOf(Ticket ticket, ApplianceModel? model, DateTimeOffset now)
    {
        // Readings from before the new drive went in are of another rebuild.
        var readings = ticket.Readings.Where(r => ticket.Swap.InsertedAt is not { } inserted || r.At > inserted).ToList();
        var bytes = ticket.Latest?.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet?.Array)?.MemberBytes;
        return new(
            new Watch(new WatchSettings(), bytes, model?.MegabytesPerSecond).Look(readings, now),
            Thinned.ToChart(readings, MostReadings),
            readings.Count
        );
    }

    /// <summary>Asked only while the engineer looks for a bay: after the pull it is known, and other pages need not wait for it.</summary>
    private async Task<string?> MapWarningAsync(Ticket ticket, CancellationToken ct) =>
        ticket is { Sheet: { } sheet, Run.Current: { } current, Report: { } report, Swap.PulledAt: null }
        && sheet.Step(current) is { Points: PointsAt.Bay } step
            ? BayMap.WarningOf(sheet.DriveOf(step).Bay, await sightings.OfAsync(report.Asset, ct))
            : null;

    private static RunView? RunOf(Ticket ticket, DateTimeOffset now, string? withdrawn, string? mapWarning)
    {
        if (ticket is not { Sheet: { } sheet, Run: { } run })
            return null;
        var step = sheet.Step(run.Current);
        return new(
            sheet,
            step,
            run.Since,
            step is null ? null : GateCheck.Unmet(ticket, run, step, now),
            step is null ? null : Stepping.Expected(ticket, sheet, step),
            step is null ? null : Stepping.Bay(ticket, sheet, step),
            run.Visits,
            run.Limits,
            run.HandedOver,
            run.IsFinished ? null : withdrawn,
            ticket.Interrupted.LastOrDefault()?.Sheet.Title,
            mapWarning
        );
    }
}
