using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Terms;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Store.Returns.Supplies;

/// <summary>What became of what was to be written down.</summary>
/// <param name="Asks">Nothing is written: something has to be said first.</param>
/// <param name="Near">What it may be meant for, where the name is new and reads nearly the same.</param>
public sealed record SupplyWritten(string Says, bool Asks, string? Near = null);

/// <summary>What has no serial: how many of it are where; what no ticket tells is written here.</summary>
public sealed class SupplyBook(IDbContextFactory<NailcrowDb> dbs, TicketJournal journal, TimeProvider time)
{
    /// <summary>Most lines of one supply that are told.</summary>
    public const int MostTold = 200;

    // A firm has some dozens of them; what is typed wrongly for years is still a page.
    private const int MostSupplies = 1_000;

    /// <summary>Every supply, by name, in one place or everywhere.</summary>
    public async Task<IReadOnlyList<SupplyStock>> ListAsync(Holder? only, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var rows = db.Supplies.AsNoTracking();
        if (only is { } at)
            rows = rows.Where(r => r.HolderKind == at.Kind && r.Holder == at.Name && r.Count > 0);
        var found = new List<SupplyStock>();
        foreach (var of in (await rows.OrderBy(r => r.Name).Take(MostSupplies * 20).ToListAsync(ct)).GroupBy(r => r.Key).Take(MostSupplies))
        {
            var stock = Stock(of.First().Name, [.. of], await LatelyAsync(db, of.Key, ct));
            found.Add(only is null ? stock : stock with { Order = null }); // what is to be ordered goes by all depots
        }
        return found;
    }

    /// <summary>One supply with its line; null where nothing is known of it.</summary>
    public async Task<SupplyView?> ViewAsync(SupplyName name, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        if (await SupplyCheck.CalledAsync(db, name.Key, ct) is not { } called)
            return null;
        var rows = await db.Supplies.AsNoTracking().Where(r => r.Key == name.Key).ToListAsync(ct);
        var texts = await db.Ledger.AsNoTracking().Where(r => r.Serial == name.Key).OrderBy(r => r.Seq).Select(r => r.Text).ToListAsync(ct);
        var moves = texts.Select(SupplyText.Read).OfType<SupplyMove>().ToList();
        var told = SupplyLine.So(moves).Zip(SupplyLine.Told(moves), (m, says) => new SupplyTold(m.At, m.By, m.Ticket, says)).ToList();
        var earlier = Math.Max(0, told.Count - MostTold);
        return new(Stock(called, rows, await LatelyAsync(db, name.Key, ct)), told[earlier..], earlier);
    }

    /// <summary>Written in the writer's turn, so that nobody takes the same ones in between.</summary>
    /// <param name="asNamed">The name was looked at again: it is no other one that reads nearly the same.</param>
    public async Task<SupplyWritten> WriteAsync(SupplyName name, SupplyMove asked, bool asNamed, CancellationToken ct)
    {
        var written = new SupplyWritten("", true);
        await journal.AloneAsync(
            async connection =>
            {
                var db = connection.Db;
                if (await db.Ledger.AsNoTracking().FirstOrDefaultAsync(r => r.Id == asked.Id) is { } earlier)
                {
                    written = Again(SupplyText.Read(earlier.Text), name, asked);
                    return;
                }
                var (called, now) = await connection.Supplies.NowAsync(name);
                var move = asked with { Supply = called ?? name.Text };
                var others = called is null ? await connection.Supplies.NamesAsync() : [];
                if (SupplyDesk.WhyNot(move, now, called is null, others) is { } no)
                    written = new(no, true);
                else if (await connection.Supplies.MeantAsync(name, asNamed) is { } meant)
                    written = new(meant.Says, true, meant.Near);
                if (written.Says.Length > 0)
                    return;
                await connection.Supplies.WriteAsync([move], null, time.GetUtcNow());
                written = new(SupplyDesk.Says(move, now), false);
            },
            ct
        );
        return written;
    }

    /// <summary>All supplies in one pass.</summary>
    internal static async Task<IReadOnlyList<SupplyBalance>> BalanceAsync(NailcrowDb db, CancellationToken ct)
    {
        var balances = new List<SupplyBalance>();
        await foreach (var (_, moves) in SupplyCheck.LinesAsync(db, ct))
        {
            var line = SupplyLine.Of(moves);
            balances.Add(new(moves[0].Supply, line.Came, line.Found, line.Used, line.Missing, line.Held, line.Difference));
        }
        return balances;
    }

    private static SupplyWritten Again(SupplyMove? earlier, SupplyName name, SupplyMove asked) =>
        earlier is not null
        && SupplyName.Parse(earlier.Supply) is Parsed<SupplyName>.Ok(var was)
        && (was.Key, earlier.Way, earlier.Count, earlier.From, earlier.To) == (name.Key, asked.Way, asked.Count, asked.From, asked.To)
            ? new("It is written down already.", false)
            : new("This id is in use for another line of the ledger; make a new id for each.", true);

    private static SupplyStock Stock(string name, IReadOnlyList<SupplyRow> rows, long lately)
    {
        var free = rows.Where(r => r.HolderKind == HolderKind.Depot).Sum(r => r.Count);
        return new(
            name,
            [
                .. rows.Where(r => r.Count > 0)
                    .OrderByDescending(r => r.Count)
                    .ThenBy(r => r.Holder)
                    .Select(r => new SupplyAt(r.At(), r.Count)),
            ],
            rows.Sum(r => r.Count),
            lately,
            Ordering.OfSupply(name, lately, free)
        );
    }

    /// <summary>From the newest back, and no further than it has to.</summary>
    private async Task<long> LatelyAsync(NailcrowDb db, string key, CancellationToken ct)
    {
        var since = time.GetUtcNow().AddDays(-Ordering.Days);
        var moves = new List<SupplyMove>();
        var rows = db.Ledger.AsNoTracking().Where(r => r.Serial == key).OrderByDescending(r => r.Seq).Select(r => r.Text);
        await foreach (var text in rows.AsAsyncEnumerable().WithCancellation(ct))
        {
            if (SupplyText.Read(text) is not { } move)
                continue;
            if (move.RecordedAt < since)
                break;
            moves.Add(move);
        }
        return SupplyLine.So(moves).Where(m => m.Way == SupplyWay.Used).Sum(m => (long)m.Count);
    }
}
