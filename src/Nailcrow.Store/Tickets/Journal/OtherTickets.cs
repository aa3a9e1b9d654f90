using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.People;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>What an entry of one ticket means to others, noted in the same breath: one drive is in one place, and one machine is as it was last seen.</summary>
internal sealed class OtherTickets(JournalBatch batch, NailcrowDb db, DateTimeOffset now)
{
    /// <param name="movesBefore">How many hand-overs the ticket had before the entry.</param>
    public async Task ToldAsync(Entry entry, int movesBefore)
    {
        await NoteElsewhereAsync(batch.Now(entry.Ticket), movesBefore);
        if (entry.Body is SnapshotTaken taken)
        {
            await NoteSeenElsewhereAsync(batch.Now(entry.Ticket), taken.Snapshot, entry.Happened);
            await TellOtherTicketsAsync(entry, taken);
        }
        else if (entry.Seq == 1)
            await TellNewTicketAsync(batch.Now(entry.Ticket));
    }

    /// <summary>One drive is in one place: a serial that another ticket left somewhere else is noted in the same breath.</summary>
    private async Task NoteElsewhereAsync(TicketRecord record, int movesBefore)
    {
        foreach (var serial in record.Ticket.Custody.Moves.Skip(movesBefore).Select(m => m.Serial).Distinct())
            if (await ElsewhereAsync(record.Ticket, serial) is { } where)
            {
                var note = batch
                    .Now(record.Ticket.Number)
                    .Next(new(Guid.CreateVersion7(now), now, 0, Actor.Service, new SerialKnownElsewhere(serial, where)), now);
                await batch.AddAsync(batch.Now(record.Ticket.Number).With(note), note);
            }
    }

    /// <summary>A serial in a bay here that was last seen in a bay of another machine, and has not been handed on since, is in two places.</summary>
    private async Task NoteSeenElsewhereAsync(TicketRecord record, Snapshot seen, DateTimeOffset at)
    {
        var asset = record.Ticket.Report?.Asset ?? "";
        var serials = seen.Bays.Where(b => b.Serial is not null).Select(b => SerialNumber.Normalise(b.Serial ?? "")).ToList();
        var told = record.Ticket.Discrepancies.Select(d => d.Sentence).ToList();
        var last = (
            await db
                .LifeEvents.AsNoTracking()
                .Where(e => serials.Contains(e.Serial) && e.At <= at && e.Ticket != record.Ticket.Number)
                .ToListAsync()
        )
            .GroupBy(e => e.Serial)
            .Select(g => g.MaxBy(e => e.At))
            .OfType<LifeEventRow>();
        foreach (var other in last.Where(e => e.Asset != asset && e.Bay is not null && e.Kind == Words.Of(LifeEventKind.Seen)))
        {
            if (
                told.Exists(t => t.Contains(other.Serial, StringComparison.Ordinal))
                || record.Ticket.Custody.HolderOf(other.Serial) is not null
            )
                continue; // said already, or this ticket knows how it came here
            var note = batch
                .Now(record.Ticket.Number)
                .Next(
                    new(
                        Guid.CreateVersion7(now),
                        now,
                        0,
                        Actor.Service,
                        new SerialKnownElsewhere(other.Serial, $"in bay {other.Bay} of {other.Asset}, by {TicketNumber.Text(other.Ticket)}")
                    ),
                    now
                );
            await batch.AddAsync(batch.Now(record.Ticket.Number).With(note), note);
        }
    }

    // A machine with more open tickets than this has one trouble, and somebody has to join them.
    private const int MostTold = 20;

    /// <summary>What one ticket saw of a machine is what its other open ones have to go by, in the same breath.</summary>
    private async Task TellOtherTicketsAsync(Entry look, SnapshotTaken taken)
    {
        foreach (var other in await OpenBesideAsync(batch.Now(look.Ticket)))
            await NoteMachineAsync(await batch.RecordAsync(db, other), new(taken.Snapshot, look.Ticket, look.By), look.Happened);
    }

    /// <summary>A new ticket goes by the newest look that another open one of its machine has.</summary>
    private async Task TellNewTicketAsync(TicketRecord opened)
    {
        var looks = new List<(TicketRecord Record, Snapshot Latest)>();
        foreach (var other in await OpenBesideAsync(opened))
            if (await batch.RecordAsync(db, other) is { Ticket.Latest: { } latest } record)
                looks.Add((record, latest));
        if (looks.Count == 0)
            return;
        var (seenOn, newest) = looks.MaxBy(l => l.Latest.TakenAt);
        var look = seenOn.Ticket.LastLook;
        await NoteMachineAsync(opened, new(newest, look?.On ?? seenOn.Ticket.Number, look?.By ?? Actor.Service.Name), newest.TakenAt);
    }

    private async Task<List<long>> OpenBesideAsync(TicketRecord record)
    {
        var (asset, number) = (record.Ticket.Report?.Asset ?? "", record.Ticket.Number);
        return await db
            .TicketLines.AsNoTracking()
            .Where(l => l.Asset == asset && !l.Ended && l.Number != number && l.Stage != Stage.Closed && l.Stage != Stage.Cancelled)
            .OrderByDescending(l => l.Number)
            .Select(l => l.Number)
            .Take(MostTold)
            .ToListAsync();
    }

    private async Task NoteMachineAsync(TicketRecord on, MachineSeen seen, DateTimeOffset at)
    {
        var note = on.Next(new(Guid.CreateVersion7(now), at, 0, Actor.Service, seen), now);
        if (note.Body is MachineSeen)
            await batch.AddAsync(on.With(note), note);
    }

    private async Task<string?> ElsewhereAsync(Ticket ticket, string serial)
    {
        var firstTime = ticket.Custody.Moves.Count(m => m.Serial == serial) == 1;
        if (!firstTime)
            return null;
        var asset = ticket.Report?.Asset;
        // A depot's drive is there to be used, and a bay of this machine is where this ticket's drives come from.
        var last = await db
            .DrivePlaces.AsNoTracking()
            .Where(p => p.Serial == serial && p.Ticket != ticket.Number)
            .OrderByDescending(p => p.At)
            .FirstOrDefaultAsync();
        return last is null || last.HolderKind == HolderKind.Depot || (last.HolderKind == HolderKind.Bay && last.Asset == asset)
            ? null
            : "with "
                + $"{new Holder(last.HolderKind, last.Holder)}{(last.HolderKind == HolderKind.Bay ? $" of {last.Asset}" : "")}, "
                + $"by {TicketNumber.Text(last.Ticket)}";
    }
}
