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
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>One transaction's worth of entries, with the projections that go with them.</summary>
/// <param name="trusting">
/// Takes remembered records for the newest and new ids for unused, and asks the database nothing. Where another node
/// has written meanwhile, or an id is in use elsewhere, a unique key refuses the batch, and each entry of it is tried
/// again without trust.
/// </param>
internal sealed class JournalBatch(JournalConnection connection, RecordCache cache, TimeProvider time, bool trusting)
{
    // Numbers a person can tell from a year or a bay.
    private const long NumbersEnd = 1_000_000_000_000;
    private const long FirstNumber = 1001;

    private readonly Dictionary<long, TicketRecord> _found = [];
    private readonly Dictionary<long, TicketRecord> _touched = [];
    private readonly HashSet<long> _opened = [];
    private readonly Dictionary<Guid, Entry> _written = [];

    public async Task<IReadOnlyList<Written>> WriteAsync(IReadOnlyList<TicketJournal.Waiting> batch)
    {
        var db = connection.Db;
        await using var transaction = await db.Database.BeginTransactionAsync();
        if (!trusting)
            await FindEarlierAsync(db, batch);
        var answers = new List<Written>();
        foreach (var waiting in batch)
            answers.Add(await OneAsync(db, waiting));
        foreach (var record in _touched.Values)
            await ProjectAsync(db, record);
        if (db.ChangeTracker.HasChanges()) // drives that moved; most entries move none
            await db.SaveChangesAsync();
        connection.StillThere();
        await transaction.CommitAsync();
        db.ChangeTracker.Clear(); // rows told again next time must not meet themselves
        foreach (var record in _touched.Values)
            cache.Keep(record);
        return answers;
    }

    private async Task<Written> OneAsync(NailcrowDb db, TicketJournal.Waiting waiting)
    {
        var intent = waiting.Intent;
        if (_written.TryGetValue(intent.Id, out var earlier))
            return await RepeatedAsync(db, waiting, earlier);
        var record = await RecordAsync(db, waiting.Ticket ?? await NextNumberAsync(db));
        if (record.Find(intent.Id) is { } known)
            return await RepeatedAsync(db, waiting, known);
        var now = time.GetUtcNow();
        var ruling = Ruling.On(record.Ticket, intent, now);
        // No key notices a refusal, so nobody is refused for what another node has changed meanwhile.
        if (ruling is not Ruling.Accepted && trusting && !_touched.ContainsKey(record.Ticket.Number))
        {
            record = _found[record.Ticket.Number] = await new RecordReader(db, cache).ReadAsync(
                record.Ticket.Number,
                CancellationToken.None
            );
            ruling = Ruling.On(record.Ticket, intent, now);
        }
        if (ruling is not Ruling.Accepted)
            return new Written.Declined(ruling);
        var entry = record.Next(intent, now);
        if (entry.Body is Unreadable unreadable) // what could not be read after a restart is not taken before it either
            return new Written.Declined(new Ruling.Unusable($"It would not be read back: {unreadable.Why}"));
        if (intent.Picture is { } picture)
            db.Photos.Add(
                new()
                {
                    Id = intent.Id,
                    Ticket = record.Ticket.Number,
                    MediaType = picture.MediaType,
                    Content = picture.Content,
                }
            );
        var custodyBefore = record.Ticket.Custody.Moves;
        await AddAsync(record.With(entry), entry);
        if (Projecting.IsOfLife(entry.Body) || _touched[entry.Ticket].Ticket.Custody.Moves.Count != custodyBefore.Count)
            _lives.Add(entry.Ticket);
        await NoteElsewhereAsync(db, _touched[entry.Ticket], custodyBefore.Count, now);
        if (entry.Body is SnapshotTaken taken)
        {
            await NoteSeenElsewhereAsync(db, _touched[entry.Ticket], taken.Snapshot, entry.Happened, now);
            await TellOtherTicketsAsync(db, entry, taken, now);
        }
        else if (entry.Seq == 1)
            await TellNewTicketAsync(db, _touched[entry.Ticket], now);
        return new Written.Kept(entry, _touched[entry.Ticket], Repeated: false);
    }

    private async Task AddAsync(TicketRecord record, Entry entry)
    {
        if (record.Head == 1)
            _opened.Add(entry.Ticket);
        _touched[entry.Ticket] = record;
        _written[entry.Id] = entry;
        await connection.Journal.InsertAsync(JournalRow.Of(entry));
    }

    /// <summary>Which of these ids are in the journal already, whichever ticket they are on?</summary>
    private async Task FindEarlierAsync(NailcrowDb db, IReadOnlyList<TicketJournal.Waiting> batch)
    {
        var ids = batch.Select(w => w.Intent.Id).ToList();
        foreach (var row in await db.Journal.AsNoTracking().Where(r => ids.Contains(r.Id)).ToListAsync())
            _written[row.Id] = row.ToEntry();
    }

    private async Task<Written> RepeatedAsync(NailcrowDb db, TicketJournal.Waiting waiting, Entry earlier)
    {
        var same =
            (waiting.Ticket is null || waiting.Ticket == earlier.Ticket)
            && waiting.Intent.Written().Text == CanonicalJson.Of(earlier.BodyAsWritten());
        return same
            ? new Written.Kept(earlier, await RecordAsync(db, earlier.Ticket), Repeated: true)
            : new Written.IdTaken(
                $"Entry id {earlier.Id} is in use for another entry, {TicketNumber.Text(earlier.Ticket)} number {earlier.Seq}; make a new id for each entry."
            );
    }

    private async Task<TicketRecord> RecordAsync(NailcrowDb db, long ticket)
    {
        if (_touched.TryGetValue(ticket, out var record) || _found.TryGetValue(ticket, out record))
            return record;
        return _found[ticket] =
            trusting && cache.Find(ticket) is { } remembered
                ? remembered
                : await new RecordReader(db, cache).ReadAsync(ticket, CancellationToken.None);
    }

    private async Task<long> NextNumberAsync(NailcrowDb db)
    {
        // What somebody wrote there that is no number of a ticket must not number the next.
        var last = await db.Journal.Where(r => r.Ticket < NumbersEnd).MaxAsync(r => (long?)r.Ticket) ?? FirstNumber - 1;
        return Math.Max(last, _touched.Keys.DefaultIfEmpty(0).Max()) + 1;
    }

    /// <summary>One drive is in one place: a serial that another ticket left somewhere else is noted in the same breath.</summary>
    private async Task NoteElsewhereAsync(NailcrowDb db, TicketRecord record, int movesBefore, DateTimeOffset now)
    {
        foreach (var serial in record.Ticket.Custody.Moves.Skip(movesBefore).Select(m => m.Serial).Distinct())
            if (await ElsewhereAsync(db, record.Ticket, serial) is { } where)
            {
                var note = _touched[record.Ticket.Number]
                    .Next(new(Guid.CreateVersion7(now), now, 0, Actor.Service, new SerialKnownElsewhere(serial, where)), now);
                await AddAsync(_touched[record.Ticket.Number].With(note), note);
            }
    }

    /// <summary>A serial in a bay here that was last seen in a bay of another machine, and has not been handed on since, is in two places.</summary>
    private async Task NoteSeenElsewhereAsync(NailcrowDb db, TicketRecord record, Snapshot seen, DateTimeOffset at, DateTimeOffset now)
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
            var note = _touched[record.Ticket.Number]
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
            await AddAsync(_touched[record.Ticket.Number].With(note), note);
        }
    }

    // A machine with more open tickets than this has one trouble, and somebody has to join them.
    private const int MostTold = 20;

    /// <summary>What one ticket saw of a machine is what its other open ones have to go by, in the same breath.</summary>
    private async Task TellOtherTicketsAsync(NailcrowDb db, Entry look, SnapshotTaken taken, DateTimeOffset now)
    {
        foreach (var other in await OpenBesideAsync(db, _touched[look.Ticket]))
            await NoteMachineAsync(await RecordAsync(db, other), new(taken.Snapshot, look.Ticket, look.By), look.Happened, now);
    }

    /// <summary>A new ticket goes by the newest look that another open one of its machine has.</summary>
    private async Task TellNewTicketAsync(NailcrowDb db, TicketRecord opened, DateTimeOffset now)
    {
        var looks = new List<(TicketRecord Record, Snapshot Latest)>();
        foreach (var other in await OpenBesideAsync(db, opened))
            if (await RecordAsync(db, other) is { Ticket.Latest: { } latest } record)
                looks.Add((record, latest));
        if (looks.Count == 0)
            return;
        var (seenOn, newest) = looks.MaxBy(l => l.Latest.TakenAt);
        var look = seenOn.Ticket.LastLook;
        await NoteMachineAsync(opened, new(newest, look?.On ?? seenOn.Ticket.Number, look?.By ?? Actor.Service.Name), newest.TakenAt, now);
    }

    private async Task<List<long>> OpenBesideAsync(NailcrowDb db, TicketRecord record)
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

    private async Task NoteMachineAsync(TicketRecord on, MachineSeen seen, DateTimeOffset at, DateTimeOffset now)
    {
        var note = on.Next(new(Guid.CreateVersion7(now), at, 0, Actor.Service, seen), now);
        if (note.Body is MachineSeen)
            await AddAsync(on.With(note), note);
    }

    private async Task<string?> ElsewhereAsync(NailcrowDb db, Ticket ticket, string serial)
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

    private readonly HashSet<long> _lives = [];

    /// <summary>Told again whole where a snapshot, a wipe or a move is new; late entries change what came after them.</summary>
    private async Task ProjectLifeAsync(NailcrowDb db, TicketRecord record)
    {
        if (!_lives.Contains(record.Ticket.Number))
            return;
        await db.Snapshots.Where(s => s.Ticket == record.Ticket.Number).ExecuteDeleteAsync();
        await db.LifeEvents.Where(e => e.Ticket == record.Ticket.Number).ExecuteDeleteAsync();
        db.Snapshots.AddRange(Projecting.Snapshots(record));
        db.LifeEvents.AddRange(Projecting.Life(record));
    }

    /// <summary>A run is told once it is over, and again if what comes late changes it.</summary>
    private async Task ProjectStepTimesAsync(NailcrowDb db, TicketRecord record)
    {
        var before = _found.GetValueOrDefault(record.Ticket.Number)?.Ticket.Run;
        if (
            record.Ticket.Run is not { IsFinished: true } run
            || (before is { IsFinished: true } && before.Visits.Count == run.Visits.Count)
        )
            return;
        await db.StepTimes.Where(t => t.Ticket == record.Ticket.Number).ExecuteDeleteAsync();
        db.StepTimes.AddRange(Projecting.StepTimes(record));
    }

    private async Task ProjectAsync(NailcrowDb db, TicketRecord record)
    {
        var line = cache.LineOf(record);
        if (_opened.Contains(line.Number))
            await connection.Lines.InsertAsync(line);
        else
            await connection.Lines.UpdateAsync(cache.LineOf(_found[line.Number]), line);
        await ProjectLifeAsync(db, record);
        await ProjectStepTimesAsync(db, record);
        var places = Projecting.Places(record).ToList();
        if (places.Count == 0)
            return;
        var known = await db.DrivePlaces.Where(p => p.Ticket == line.Number).ToDictionaryAsync(p => p.Serial);
        foreach (var place in places)
            if (!known.TryGetValue(place.Serial, out var row))
                db.DrivePlaces.Add(place);
            else
                db.Entry(row).CurrentValues.SetValues(place);
    }
}
