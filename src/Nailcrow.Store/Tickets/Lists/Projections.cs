using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Store.Products;
using Nailcrow.Store.Returns;
using Nailcrow.Store.Tickets.Journal;

namespace Nailcrow.Store.Tickets.Lists;

/// <summary>
/// Tells the lists anew from the journal, some tickets at a time and each of them whole, in its turn among the writers: the
/// service answers meanwhile, and what was told stays told when it is interrupted.
/// </summary>
public sealed class Projections(IDbContextFactory<NailcrowDb> dbs, TicketJournal journal)
{
    // As many as hold writers up for some tens of milliseconds.
    private const int AtOnce = 200;

    private const int MarkedAtOnce = 2_000;

    /// <summary>Every ticket, whatever its lists say now.</summary>
    /// <returns>How many tickets were told again.</returns>
    public async Task<long> RebuildAsync(CancellationToken ct)
    {
        long? marked = long.MinValue;
        await PieceByPieceAsync(async connection => (marked = await MarkSomeAsync(connection, marked ?? 0)) is not null, ct);
        await journal.AloneAsync(connection => connection.Db.Product.RefillPartsAsync(connection.Db), ct);
        return await BringUpToDateAsync(ct) + await TellMissingAsync(ct);
    }

    /// <summary>The tickets that were told by older rules than today's, and where parts are, which has no rules of its own.</summary>
    public async Task<long> BringUpToDateAsync(CancellationToken ct)
    {
        string? part = "";
        await PieceByPieceAsync(async connection => (part = await connection.Pen.TellSomeAsync(part ?? "")) is not null, ct);
        string? supply = "";
        await PieceByPieceAsync(async connection => (supply = await connection.Supplies.TellNextAsync(supply ?? "")) is not null, ct);
        await PieceByPieceAsync(WarrantyRow.TellBackwardsAsync, ct);
        return await TellAllAsync(
            (db, after) => db.TicketLines.Where(l => l.Rules < Projecting.ListRules && l.Number > after).Select(l => l.Number),
            ct
        );
    }

    /// <summary>
    /// Whether some ticket was told by older rules than today's, or some part by a release that did not know how it looks, or there are
    /// entries and no lists at all. Asked at every start and often after it, so it is one question that nothing has to be compiled for.
    /// </summary>
    public async Task<bool> AreStaleAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await Asking.NumberAsync(
                db,
                // What a newer release told, which runs beside this one or did, is its to tell.
                $"SELECT CASE WHEN EXISTS (SELECT 1 FROM ticket_line WHERE rules < {Projecting.ListRules}) OR (NOT "
                    + "EXISTS (SELECT 1 FROM ticket_line) AND EXISTS (SELECT 1 FROM journal)) "
                    + "OR EXISTS (SELECT 1 FROM part WHERE looks IS NULL) THEN 1 ELSE 0 END",
                ct
            ) == 1;
    }

    /// <summary>Tickets that have entries and no line.</summary>
    public Task<long> TellMissingAsync(CancellationToken ct) =>
        TellAllAsync(
            (db, after) =>
                // Grouped, which goes along the index and stops; what is made distinct is gathered to its end before some of it are taken.
                db
                    .Journal.Where(r => r.Ticket > after && !db.TicketLines.Any(l => l.Number == r.Ticket))
                    .GroupBy(r => r.Ticket)
                    .Select(one => one.Key),
            ct
        );

    /// <summary>While some are written in the writer's turn, the next are read and folded beside it: the writer is held up by rows only.</summary>
    /// <param name="wanted">The tickets after a number that are to be told.</param>
    private async Task<long> TellAllAsync(Func<NailcrowDb, long, IQueryable<long>> wanted, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        using var time = db.TakesAllTheTimeItNeeds(); // that none is missing is known once all were looked at
        var told = 0L;
        var next = FoldAsync(db, wanted, 0, ct);
        try
        {
            while (await next is { Last: { } last } folded)
            {
                next = FoldAsync(db, wanted, last, ct); // one that could not be told is left for the next time, not tried for ever
                await journal.AloneAsync(connection => WriteAsync(connection, folded.Lists), ct);
                told += folded.Lists.Count;
            }
            return told;
        }
        finally
        {
            await ((Task)next).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing); // it reads on the connection that is closed next
        }
    }

    /// <returns>The lists, and the last of the tickets they are of; none where there is nothing more to tell.</returns>
    private async Task<(long? Last, IReadOnlyList<ListsOfTicket> Lists)> FoldAsync(
        NailcrowDb db,
        Func<NailcrowDb, long, IQueryable<long>> wanted,
        long after,
        CancellationToken ct
    )
    {
        var numbers = await wanted(db, after).OrderBy(n => n).Take(AtOnce).ToListAsync(ct);
        if (numbers.Count == 0 || numbers.Max() <= after) // a number that is none, which somebody wrote, sorts behind all that are
            return (null, []);
        var entries = await JournalRows.OfTicketsAsync(db, numbers, ct);
        // One core is left to whoever writes. A line whose entries are gone is verify's to tell.
        var lists = await Task.Run(
            () =>
                numbers
                    .AsParallel()
                    .AsOrdered()
                    .WithDegreeOfParallelism(Math.Max(1, Environment.ProcessorCount - 1))
                    .Where(n => entries[n].Any())
                    .Select(n => ListsOfTicket.Of(Record(n, entries[n])))
                    .ToList(),
            ct
        );
        return (numbers.Max(), lists);
    }

    private static TicketRecord Record(long number, IEnumerable<StoredEntry> entries) =>
        TicketRecord.Of(number, entries.Select(EntryReader.Read));

    /// <summary>Each piece in a turn of its own: whoever has something to write comes in between.</summary>
    /// <param name="piece">Does the next one, and says whether there are more.</param>
    private async Task PieceByPieceAsync(Func<JournalConnection, Task<bool>> piece, CancellationToken ct)
    {
        for (var more = true; more; )
            await journal.AloneAsync(async connection => more = await piece(connection), ct);
    }

    /// <summary>Has the next tickets after a number told by the rules before all others, and lets go of what no ticket tells.</summary>
    /// <returns>The number after which the next come; null where these were the last.</returns>
    private static async Task<long?> MarkSomeAsync(JournalConnection connection, long after)
    {
        var db = connection.Db;
        var numbers = db.TicketLines.Where(l => l.Number > after).OrderBy(l => l.Number).Select(l => (long?)l.Number);
        var next = await numbers.Skip(MarkedAtOnce - 1).FirstOrDefaultAsync() is { } one && one > after ? one : (long?)null;
        var (lines, places) = (db.TicketLines.Where(l => l.Number > after), db.DrivePlaces.Where(p => p.Ticket > after));
        var (looks, lives) = (db.Snapshots.Where(s => s.Ticket > after), db.LifeEvents.Where(e => e.Ticket > after));
        var times = db.StepTimes.Where(t => t.Ticket > after);
        // What somebody wrote there that is no number sorts behind all that are: the last piece has no end, and is not asked for one.
        if (next is { } upTo)
        {
            (lines, places) = (lines.Where(l => l.Number <= upTo), places.Where(p => p.Ticket <= upTo));
            (looks, lives) = (looks.Where(s => s.Ticket <= upTo), lives.Where(e => e.Ticket <= upTo));
            times = times.Where(t => t.Ticket <= upTo);
        }
        await lines.Where(l => !db.Journal.Any(r => r.Ticket == l.Number)).ExecuteDeleteAsync();
        await places.Where(p => !db.Journal.Any(r => r.Ticket == p.Ticket)).ExecuteDeleteAsync();
        await looks.Where(s => !db.Journal.Any(r => r.Ticket == s.Ticket)).ExecuteDeleteAsync();
        await lives.Where(e => !db.Journal.Any(r => r.Ticket == e.Ticket)).ExecuteDeleteAsync();
        await times.Where(t => !db.Journal.Any(r => r.Ticket == t.Ticket)).ExecuteDeleteAsync();
        await lines.ExecuteUpdateAsync(set => set.SetProperty(l => l.Rules, -1));
        return next;
    }

    private static async Task WriteAsync(JournalConnection connection, IReadOnlyList<ListsOfTicket> folded)
    {
        var db = connection.Db;
        var numbers = folded.Select(f => f.Number).ToList();
        if (numbers.Count == 0)
            return;
        var heads = await db
            .Journal.Where(r => numbers.Contains(r.Ticket))
            .GroupBy(r => r.Ticket)
            .Select(g => new { Ticket = g.Key, Head = g.Max(r => r.Seq) })
            .ToDictionaryAsync(h => h.Ticket, h => h.Head);
        var lists = new List<ListsOfTicket>();
        foreach (var one in folded)
            lists.Add(
                heads.GetValueOrDefault(one.Number) == one.Line.Head
                    ? one
                    : ListsOfTicket.Of(Record(one.Number, await JournalRows.OfTicketAsync(db, one.Number, 0, CancellationToken.None)))
            ); // written to between the folding and this turn
        await LinesAsync(connection, numbers, lists);
        await ReplaceAsync(connection, numbers, lists, l => l.Places, r => r.Ticket);
        await ReplaceAsync(connection, numbers, lists, l => l.Snapshots, r => r.Ticket);
        await ReplaceAsync(connection, numbers, lists, l => l.Life, r => r.Ticket);
        await ReplaceAsync(connection, numbers, lists, l => l.Times, r => r.Ticket);
        // A ticket from before there was a ledger is told to it once; what it has already is not written again.
        var known = await db.Ledger.Where(l => numbers.Contains(l.Ticket ?? 0)).Select(l => l.Id).ToHashSetAsync();
        foreach (var one in lists.Where(l => l.Movements.Any(m => m.To is not null && !known.Contains(m.Id))))
            await connection.Pen.WriteAsync(one.Movements, one.Last, one.Last.RecordedAt);
        foreach (var one in lists.Where(l => l.Uses.Any(m => !known.Contains(m.Id))))
            await connection.Supplies.WriteAsync(one.Uses, one.Last, one.Last.RecordedAt);
    }

    /// <summary>Most of what is told anew stands there already, and what stands there is not written again.</summary>
    private static async Task LinesAsync(JournalConnection connection, IReadOnlyList<long> numbers, List<ListsOfTicket> lists)
    {
        var kept = await ListRows<TicketLineRow>.OfAsync(connection.Db, numbers, l => l.Number, CancellationToken.None);
        foreach (var line in lists.Select(l => l.Line))
            await (
                kept.Differing(line.Number, line) is { } differing
                    ? connection.Lines.UpdateAsync(differing, line)
                    : connection.Lines.UpsertAsync(line)
            );
    }

    private static async Task ReplaceAsync<TRow>(
        JournalConnection connection,
        IReadOnlyList<long> numbers,
        List<ListsOfTicket> lists,
        Func<ListsOfTicket, IReadOnlyList<TRow>> of,
        Expression<Func<TRow, long>> ticket
    )
        where TRow : class
    {
        var kept = await ListRows<TRow>.OfAsync(connection.Db, numbers, ticket, CancellationToken.None);
        var other = lists.Where(l => !kept.Are(l.Number, of(l))).ToList();
        await kept.DeleteAsync(connection.Db, other.ConvertAll(l => l.Number));
        foreach (var row in other.SelectMany(of))
            await connection.Rows<TRow>().InsertAsync(row);
    }
}
