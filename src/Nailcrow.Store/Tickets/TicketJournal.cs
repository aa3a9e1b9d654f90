using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.Products;
using Nailcrow.Store.Tickets.Journal;

namespace Nailcrow.Store.Tickets;

/// <summary>
/// The one door to the journal. Entries that wait at the same time are written in one transaction, so that one disk
/// flush serves many; each is ruled on in turn against the ticket as the ones before it left it.
/// </summary>
public sealed class TicketJournal : IAsyncDisposable
{
    // One flush serves this many at most: more would make the first of them wait for the last.
    private const int MostInOneFlush = 256;

    private readonly IDbContextFactory<NailcrowDb> _dbs;
    private readonly TimeProvider _time;
    private readonly JournalNews _news;
    private readonly OtherReleases _others;
    private readonly NodeClock? _clock;
    private readonly DatabaseFile? _file;
    private readonly RecordCache _cache = new();
    private readonly Channel<Waiting> _waiting = Channel.CreateBounded<Waiting>(new BoundedChannelOptions(10_000) { SingleReader = true });
    private readonly Task _writing;

    public TicketJournal(
        IDbContextFactory<NailcrowDb> dbs,
        TimeProvider time,
        JournalNews news,
        OtherReleases others,
        NodeClock? clock = null,
        DatabaseFile? file = null
    )
    {
        (_dbs, _time, _news, _others, _clock, _file) = (dbs, time, news, others, clock, file);
        _writing = Task.Run(WriteAllAsync);
    }

    /// <summary>Writes an entry of a ticket; returns once it is on disk, or why it is not.</summary>
    /// <param name="under">The work that it is part of, where one node does that for all.</param>
    /// <exception cref="LeaseLostException">Another node has that work now; nothing was written.</exception>
    public Task<Written> WriteAsync(long ticket, Intent intent, CancellationToken ct, Lease? under = null) =>
        WaitAsync(new(ticket, intent) { Under = under }, ct);

    /// <summary>Opens a ticket with its first entry, or gives the one that this entry opened before.</summary>
    /// <param name="newest">
    /// The newest ticket of the machine that whoever opens this one knew of, 0 for none: where there is a newer one, nothing is opened, and
    /// <see cref="Written.Overtaken"/> says so. Null opens it in any case.
    /// </param>
    /// <param name="under">As for <see cref="WriteAsync(long, Intent, CancellationToken, Lease?)"/>.</param>
    public Task<Written> OpenAsync(Intent report, CancellationToken ct, long? newest = null, Lease? under = null) =>
        WaitAsync(new(null, report) { Under = under, Newest = newest }, ct);

    public async Task<TicketRecord?> ReadAsync(long ticket, CancellationToken ct)
    {
        await using var db = await _dbs.CreateDbContextAsync(ct);
        var record = await new RecordReader(db, _cache).ReadAsync(ticket, ct);
        return record.Head == 0 ? null : record;
    }

    /// <summary>What was written after a position, oldest first.</summary>
    public async Task<IReadOnlyList<JournalItem>> AfterAsync(long position, int most, CancellationToken ct)
    {
        await using var db = await _dbs.CreateDbContextAsync(ct);
        return await db
            .Journal.Where(r => r.Position > position)
            .OrderBy(r => r.Position)
            .Take(most)
            .Select(r => new JournalItem(r.Position, r.Ticket, r.Seq, r.Kind, r.By))
            .ToListAsync(ct);
    }

    public async Task<long> LastPositionAsync(CancellationToken ct)
    {
        await using var db = await _dbs.CreateDbContextAsync(ct);
        return await db.Journal.OrderByDescending(r => r.Position).Select(r => r.Position).FirstOrDefaultAsync(ct);
    }

    public async ValueTask DisposeAsync()
    {
        _waiting.Writer.TryComplete();
        await _writing;
    }

    /// <summary>
    /// Something that is done between two batches, alone on the writer's connection and in a transaction of its own: nobody
    /// writes meanwhile, and it needs no lock.
    /// </summary>
    internal async Task AloneAsync(Func<JournalConnection, Task> work, CancellationToken ct)
    {
        var waiting = new Waiting(null, null) { Alone = work };
        await _waiting.Writer.WriteAsync(waiting, ct);
        await waiting.Answer.Task.WaitAsync(ct);
    }

    private async Task<Written> WaitAsync(Waiting waiting, CancellationToken ct)
    {
        waiting.Intent.Written(); // made by whoever asks, at the same time as others; the one writer finds it done
        var begun = Measures.Now;
        await _waiting.Writer.WriteAsync(waiting, ct);
        Measures.Waiting.Add(1);
        // Once handed over it is written whether or not the caller still listens; a repeat then finds it.
        var answer = await waiting.Answer.Task.WaitAsync(ct);
        Measures.Wait.Since(begun);
        return answer;
    }

    private async Task WriteAllAsync()
    {
        await using var connection = new JournalConnection(_dbs, _file);
        while (await _waiting.Reader.WaitToReadAsync())
        {
            var batch = new List<Waiting>();
            TakeWhatWaits(batch);
            if (batch.Count > 0)
                await WriteAsync(connection, batch);
            else if (_waiting.Reader.TryRead(out var alone))
                await AloneAsync(connection, alone);
        }
    }

    private void TakeWhatWaits(List<Waiting> batch)
    {
        while (batch.Count < MostInOneFlush && _waiting.Reader.TryPeek(out var next) && next.Alone is null)
            if (_waiting.Reader.TryRead(out next))
            {
                Measures.Waiting.Add(-1);
                batch.Add(next);
            }
    }

    private static async Task AloneAsync(JournalConnection connection, Waiting waiting)
    {
        try
        {
            await connection.OpenAsync();
            await using var transaction = await connection.Db.Product.BeginAsync(
                connection.Db,
                WritersTurn.Journal,
                CancellationToken.None
            );
            await (waiting.Alone ?? throw new InvalidOperationException("Nothing to do alone."))(connection);
            await connection.KeepAsync(transaction);
            waiting.Answer.TrySetResult(new Written.Done());
        }
        catch (Exception e)
        {
            await connection.DisposeAsync();
            waiting.Answer.TrySetException(e);
        }
    }

    /// <param name="again">The connection was cut. Whether it came to be kept nobody heard; where it did, it is found by its id.</param>
    private async Task WriteAsync(JournalConnection connection, List<Waiting> batch, bool again = false)
    {
        try
        {
            await (again ? connection.RenewAsync() : connection.OpenAsync());
            if (again)
                foreach (var ticket in batch.Select(one => one.Ticket).OfType<long>())
                    _cache.Forget(ticket);
            await WriteTurnAsync(connection, batch, trusting: !again);
        }
        catch (Exception e) when (!again && StorageFaults.IsCut(e))
        {
            CutLines.LetGo(connection.Line, e);
            await WriteAsync(connection, batch, again: true);
        }
        catch (Exception e) when (StorageFaults.Of(e) is not (null or StorageFault.Gone)) // a file that was put back is only opened anew
        {
            // No entry is to blame, and each of them alone would only wait as long again.
            await connection.DisposeAsync();
            foreach (var one in batch)
                one.Answer.TrySetException(e);
        }
        catch (Exception)
        {
            // One of them cannot be written, or another node wrote meanwhile; the others must not fall with it.
            foreach (var one in batch)
                await WriteAloneAsync(connection, one);
        }
    }

    private async Task WriteAloneAsync(JournalConnection connection, Waiting one)
    {
        try
        {
            await connection.RenewAsync();
            if (one.Ticket is { } ticket)
                _cache.Forget(ticket);
            await WriteTurnAsync(connection, [one], trusting: false);
        }
        catch (Exception e)
        {
            one.Answer.TrySetException(e);
        }
    }

    private async Task WriteTurnAsync(JournalConnection connection, List<Waiting> batch, bool trusting)
    {
        using var turn = Measures.BeginTurn();
        var begun = Measures.Now;
        var writing = new JournalBatch(connection, _cache, _time, _others, _clock, trusting);
        var answers = await writing.WriteAsync(batch, trusting ? TakeWhatWaits : _ => { });
        Measures.Turn.Since(begun);
        Measures.Entries.Add(writing.Entries);
        turn?.SetTag("nailcrow.entries", writing.Entries);
        _news.Ring(writing.HasErrands);
        foreach (var (waiting, answer) in batch.Zip(answers))
            waiting.Answer.TrySetResult(answer);
    }

    internal sealed record Waiting(long? Ticket, Intent? Asked)
    {
        public Intent Intent => Asked ?? throw new InvalidOperationException("This is no entry to be written.");

        public Func<JournalConnection, Task>? Alone { get; init; }

        public Lease? Under { get; init; }

        /// <summary>The newest ticket of its machine that it may be opened after.</summary>
        public long? Newest { get; init; }

        public TaskCompletionSource<Written> Answer { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);
    }
}
