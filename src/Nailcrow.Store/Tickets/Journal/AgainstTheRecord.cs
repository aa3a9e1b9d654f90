using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Returns.Ledger;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>What a move or a look says, held against what other tickets recorded of the same drives and the same machine.</summary>
/// <param name="write">Writes a note of the service's on a ticket.</param>
internal sealed class AgainstTheRecord(JournalBatch batch, NailcrowDb db, LedgerPen pen, Func<long, EntryBody, DateTimeOffset, Task> write)
{
    /// <summary>One drive is in one place: a serial that another ticket left somewhere else is noted in the same breath.</summary>
    public async Task MovedAsync(Entry entry, IReadOnlyList<CustodyMove> moved)
    {
        foreach (var serial in moved.Select(m => m.Serial).Distinct())
        {
            var line = await pen.LineAsync(serial);
            if ((await ElsewhereAsync(batch.Now(entry.Ticket).Ticket, serial) ?? SetAside(line, entry)) is { } where)
                await write(entry.Ticket, new SerialKnownElsewhere(serial, where, entry.Id), entry.RecordedAt);
            await TellTheOthersAsync(entry, line);
        }
    }

    /// <summary>It was on no ticket's hands yet, and another one waits for it.</summary>
    private static string? SetAside(PartLine line, Entry entry) =>
        entry.Body is not PartReserved && line.ReservedFor.FirstOrDefault(t => t != entry.Ticket) is var other and > 0
            ? $"as set aside for {TicketNumber.Text(other)}"
            : null;

    /// <summary>Whoever waits for the part, or has it on the way, hears that it is here now.</summary>
    private async Task TellTheOthersAsync(Entry entry, PartLine line)
    {
        if (line.Last is not { To: { } to } last || last.Ticket != entry.Ticket)
            return; // what came late says nothing of where it is now
        foreach (var number in line.Movements.Select(m => m.Ticket).OfType<long>().Distinct().Where(n => n != entry.Ticket))
            if (
                (await batch.RecordAsync(db, number)).Ticket is { IsEnded: false } other
                && (TicketMovements.SetAside(other).Contains(line.Serial) || other.Custody.HolderOf(line.Serial) is { MayKeep: false })
                && other.Custody.HolderOf(line.Serial) != to
            )
                await write(number, new PartUsedElsewhere(line.Serial, entry.Ticket, to, last.Asset), entry.Happened);
    }

    /// <summary>What a look shows that earlier records do not know.</summary>
    public async Task SeenAsync(Entry look, Snapshot seen)
    {
        await NoteSeenElsewhereAsync(look, seen);
        await NoteChangedAsync(look, seen);
    }

    /// <summary>A serial in a bay here that was last seen in a bay of another machine, and has not been handed on since, is in two places.</summary>
    private async Task NoteSeenElsewhereAsync(Entry look, Snapshot seen)
    {
        var ticket = batch.Now(look.Ticket).Ticket;
        var asset = ticket.Report?.Asset ?? "";
        var serials = seen.Bays.Where(b => b.Serial is not null).Select(b => SerialNumber.Normalise(b.Serial ?? "")).ToList();
        var told = ticket.Discrepancies.Select(d => d.Sentence).ToList();
        var last = (
            await db
                .LifeEvents.AsNoTracking()
                .Where(e => serials.Contains(e.Serial) && e.At <= look.Happened && e.Ticket != look.Ticket)
                .ToListAsync()
        )
            .GroupBy(e => e.Serial)
            .Select(g => g.MaxBy(e => e.At))
            .OfType<LifeEventRow>();
        foreach (var other in last.Where(e => e.Asset != asset && e.Bay is not null && e.Kind == Words.Of(LifeEventKind.Seen)))
        {
            if (told.Exists(t => t.Contains(other.Serial, StringComparison.Ordinal)) || ticket.Custody.HolderOf(other.Serial) is not null)
                continue; // said already, or this ticket knows how it came here
            var where = $"in bay {other.Bay} of {other.Asset}, by {TicketNumber.Text(other.Ticket)}";
            await write(look.Ticket, new SerialKnownElsewhere(other.Serial, where, look.Id), look.RecordedAt);
        }
    }

    /// <summary>The first look of a ticket is held against the last one before it: what differs, and no ticket recorded, is told.</summary>
    private async Task NoteChangedAsync(Entry look, Snapshot seen)
    {
        var record = batch.Now(look.Ticket);
        var asset = record.Ticket.Report?.Asset ?? "";
        if (record.AsItCounts().Any(e => e.Body is SnapshotTaken && e.Id != look.Id))
            return;
        var last = await db
            .Snapshots.AsNoTracking()
            .Where(s => s.Asset == asset && s.Ticket != look.Ticket && s.At < look.Happened)
            .OrderByDescending(s => s.At)
            .FirstOrDefaultAsync();
        if (
            last is null
            || (await batch.RecordAsync(db, last.Ticket)).Arrived.Find(e => e.Seq == last.Seq)?.Body is not SnapshotTaken before
        )
            return;
        var there = before
            .Snapshot.Bays.Concat(seen.Bays)
            .Select(b => b.Serial)
            .OfType<string>()
            .Select(SerialNumber.Normalise)
            .ToHashSet();
        var recorded = await db
            .DrivePlaces.AsNoTracking()
            .Where(p => there.Contains(p.Serial) && p.At > last.At)
            .Select(p => p.Serial)
            .ToListAsync();
        if (SinceLastRecord.Differs(record.Ticket, before.Snapshot, seen, recorded.ToHashSet()) is { Count: > 0 } changes)
            await write(look.Ticket, new MachineChanged(last.Ticket, last.At, last.By, changes, look.Id), look.Happened);
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
