using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Products;
using Nailcrow.Store.Returns;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Swaps;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>One transaction's worth of entries, with the projections that go with them.</summary>
/// <param name="trusting">
/// Takes remembered records for the newest and new ids for unused, and asks the database nothing. Where another node
/// has written meanwhile, or an id is in use elsewhere, a unique key refuses the batch, and each entry of it is tried
/// again without trust. A report opens a ticket, so no record can tell that it was sent before: with one, nothing is trusted.
/// </param>
internal sealed class JournalBatch(
    JournalConnection connection,
    RecordCache cache,
    TimeProvider time,
    OtherReleases others,
    NodeClock? clock,
    bool trusting
)
{
    // Numbers a person can tell from a year or a bay.
    private const long NumbersEnd = 1_000_000_000_000;
    private const long FirstNumber = 1001;

    private readonly Dictionary<long, TicketRecord> _found = [];
    private readonly Dictionary<long, TicketRecord> _touched = [];
    private readonly HashSet<long> _opened = [];
    private readonly Dictionary<Guid, Entry> _written = [];
    private readonly HashSet<Lease> _under = []; // asked once: what was found stays so until the transaction ends
    private bool _trusting;

    /// <summary>Something of it has to leave Nailcrow.</summary>
    public bool HasErrands { get; private set; }

    /// <summary>How many were written, the service's own notes among them.</summary>
    public int Entries { get; private set; }

    /// <param name="more">Adds what came while the turn was waited for.</param>
    public async Task<IReadOnlyList<Written>> WriteAsync(List<TicketJournal.Waiting> batch, Action<List<TicketJournal.Waiting>> more)
    {
        var db = connection.Db;
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.Journal, CancellationToken.None);
        if (db.TurnBegan is { } there)
            clock?.HasToBeRight(there);
        more(batch);
        _trusting = trusting && !batch.Exists(w => w.Ticket is null);
        if (!_trusting)
            await FindEarlierAsync(db, batch);
        var answers = new List<Written>();
        foreach (var waiting in batch)
            answers.Add(await OneAsync(db, waiting));
        foreach (var record in _touched.Values)
            await ProjectAsync(db, record);
        if (db.ChangeTracker.HasChanges()) // drives that moved; most entries move none
            await db.SaveChangesAsync();
        if (_touched.Count > 0)
            connection.TellOthers(HasErrands);
        await connection.KeepAsync(transaction);
        foreach (var record in _touched.Values)
            cache.Keep(record);
        return answers;
    }

    private async Task<Written> OneAsync(NailcrowDb db, TicketJournal.Waiting waiting)
    {
        var intent = waiting.Intent;
        if (waiting.Under is { } lease && !_under.Contains(lease))
            _under.Add(await db.Product.HoldsAsync(db, lease) ? lease : throw new LeaseLostException(lease.Work));
        if (_written.TryGetValue(intent.Id, out var earlier))
            return await RepeatedAsync(db, waiting, earlier);
        if (waiting.Newest is { } newest && await NewerAsync(db, intent, newest) is { } newer)
            return new Written.Overtaken(newer);
        var record = await RecordAsync(db, waiting.Ticket ?? await NextNumberAsync(db));
        if (record.Find(intent.Id) is { } known)
            return await RepeatedAsync(db, waiting, known);
        var now = time.GetUtcNow();
        var ruling = Ruling.On(record, intent, now);
        // No key notices a refusal, so nobody is refused for what another node has changed meanwhile.
        if (ruling is not Ruling.Accepted && _trusting && !_touched.ContainsKey(record.Ticket.Number))
        {
            record = _found[record.Ticket.Number] = await new RecordReader(db, cache).ReadAsync(
                record.Ticket.Number,
                CancellationToken.None
            );
            ruling = Ruling.On(record, intent, now);
        }
        if (ruling is not Ruling.Accepted)
            return new Written.Declined(ruling);
        if (others.WhyNotYet(intent.Body) is { } notYet)
            return new Written.Declined(new Ruling.Refused(notYet));
        var change = Corrections.By(record, intent, now);
        if (await new AgainstTheBooks(connection).WhyNotAsync(record.Ticket.Number, change) is { } no)
            return new Written.Declined(new Ruling.Refused(no));
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
        if (entry.Body is PictureRemoved removed)
        {
            await connection.SentAsync(); // a guard of the database looks for the entry
            await PhotoRows.LetGoAsync(db, removed.Photo);
        }
        await new OtherTickets(this, db, connection.Pen, now).ToldAsync(entry, change, custodyBefore);
        return new Written.Kept(entry, _touched[entry.Ticket], Repeated: false);
    }

    /// <summary>The record as this batch leaves it so far.</summary>
    internal TicketRecord Now(long ticket) => _touched[ticket];

    internal async Task AddAsync(TicketRecord record, Entry entry)
    {
        if (record.Head == 1)
            _opened.Add(entry.Ticket);
        var before = (_touched.GetValueOrDefault(entry.Ticket) ?? _found.GetValueOrDefault(entry.Ticket))?.Ticket ?? new(entry.Ticket);
        _touched[entry.Ticket] = record;
        _written[entry.Id] = entry;
        await connection.Journal.InsertAsync(JournalRow.Of(entry));
        Entries++;
        if (Projecting.IsOfLife(entry.Body) || !ReferenceEquals(before.Custody.Moves, record.Ticket.Custody.Moves))
            _lives.Add(entry.Ticket); // whoever wrote it: the service's own notes move drives as well
        if (TicketMovements.Between(before, record.Ticket, entry) is { Count: > 0 } movements)
            await connection.Pen.WriteAsync(movements, entry, entry.RecordedAt);
        if (SuppliesOf.Between(before, record.Ticket, entry) is { Count: > 0 } moves)
            await connection.Supplies.WriteAsync(moves, entry, entry.RecordedAt);
        if (entry.Body is MakerAnswered { Warranty: { } warranty } said)
            await connection
                .Rows<WarrantyRow>()
                .UpsertAsync(WarrantyRow.Of(new(SerialNumber.Normalise(said.Serial), null, warranty, said.Maker, entry.RecordedAt)));
        foreach (var errand in Errand.Between(before, record.Ticket, entry))
        {
            await connection.Rows<OutboxRow>().UpsertAsync(OutboxRow.Of(errand, entry.Ticket, entry.RecordedAt));
            HasErrands = true;
        }
        if (Errand.MayDiffer(before, record.Ticket))
            await WantedAsync(record.Ticket, entry.RecordedAt);
    }

    /// <summary>
    /// What waits to be said outside and is overtaken by now waits no more, and what was overtaken and is wanted again waits again.
    /// Whoever says it just now ends it by itself.
    /// </summary>
    private async Task WantedAsync(Ticket ticket, DateTimeOffset now)
    {
        var rows = new List<OutboxRow>();
        await foreach (var row in MayBeWanted(connection.Db, ticket.Number))
            rows.Add(row);
        foreach (var row in rows)
        {
            var (errand, waits) = (row.Errand(), row.State == ErrandState.Waiting);
            if (waits == errand.IsWanted(ticket) || (!waits && !errand.ComesBack))
                continue;
            var (state, dueAt) = waits ? (ErrandState.NotWanted, (DateTimeOffset?)null) : (ErrandState.Waiting, now);
            await connection
                .Db.Outbox.Where(r => r.Id == row.Id)
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.State, state).SetProperty(r => r.DueAt, dueAt));
            HasErrands |= !waits;
        }
    }

    // Compiled once: each movement asks it, in the transaction that everybody waits for.
    private static readonly Func<NailcrowDb, long, IAsyncEnumerable<OutboxRow>> MayBeWanted = EF.CompileAsyncQuery(
        (NailcrowDb db, long ticket) =>
            db.Outbox.AsNoTracking().Where(r => r.Ticket == ticket && (r.State == ErrandState.Waiting || r.State == ErrandState.NotWanted))
    );

    /// <summary>A ticket of the same machine that is newer than one.</summary>
    private async Task<long?> NewerAsync(NailcrowDb db, Intent report, long than)
    {
        var asset = (report.Body as FaultReported)?.Asset;
        var here = _opened.Where(n => n > than && _touched[n].Ticket.Report?.Asset == asset).Select(n => (long?)n).Max();
        return here ?? await db.TicketLines.Where(l => l.Asset == asset && l.Number > than).MaxAsync(l => (long?)l.Number);
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

    internal async Task<TicketRecord> RecordAsync(NailcrowDb db, long ticket)
    {
        if (_touched.TryGetValue(ticket, out var record) || _found.TryGetValue(ticket, out record))
            return record;
        return _found[ticket] =
            _trusting && cache.Find(ticket) is { } remembered
                ? remembered
                : await new RecordReader(db, cache).ReadAsync(ticket, CancellationToken.None);
    }

    internal async Task<long> NextNumberAsync(NailcrowDb db)
    {
        var last = await LastNumberAsync(db, CancellationToken.None);
        var next = Math.Max(last, _touched.Keys.DefaultIfEmpty(0).Max()) + 1;
        await connection.RoomForAsync(next);
        return next;
    }

    /// <summary>What somebody wrote there that is no number of a ticket must not number the next.</summary>
    public static async Task<long> LastNumberAsync(NailcrowDb db, CancellationToken ct) =>
        await db.Journal.Where(r => r.Ticket < NumbersEnd).MaxAsync(r => (long?)r.Ticket, ct) ?? FirstNumber - 1;

    private readonly HashSet<long> _lives = [];

    /// <summary>Told again where a snapshot, a wipe or a move is new: late entries change what came after them.</summary>
    private async Task ProjectLifeAsync(TicketRecord? before, TicketRecord record)
    {
        if (!_lives.Contains(record.Ticket.Number))
            return;
        await BecomeAsync(before, record, Projecting.Snapshots);
        await BecomeAsync(before, record, Projecting.Life);
        await BecomeAsync(before, record, Projecting.Places);
    }

    private Task BecomeAsync<TRow>(TicketRecord? before, TicketRecord record, Func<TicketRecord, IEnumerable<TRow>> rows)
        where TRow : class => connection.Rows<TRow>().BecomeAsync(before is null ? [] : rows(before), rows(record));

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
        await ProjectLifeAsync(_opened.Contains(line.Number) ? null : _found[line.Number], record);
        await ProjectStepTimesAsync(db, record);
    }
}
