using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Terms;
using Nailcrow.Store.Products;
using Nailcrow.Store.Returns.Supplies;
using Nailcrow.Store.Rows;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Returns.Ledger;

/// <summary>Every part, where it is and where it has been; what no ticket tells is written here.</summary>
public sealed class LedgerBook(IDbContextFactory<NailcrowDb> dbs, TicketJournal journal, TimeProvider time)
{
    /// <summary>Most lines of a list that is told whole.</summary>
    public const int MostTold = 200;

    public async Task<PartLine> LineAsync(string serial, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await new LedgerPen(db).LineAsync(serial);
    }

    /// <summary>
    /// The serial that a scanned code means: the ledger knows it as it is, or without the data identifier that labels put before it;
    /// where it knows neither, as it is.
    /// </summary>
    public async Task<string> MeantAsync(string scanned, CancellationToken ct)
    {
        var meanings = SerialNumber.Meanings(scanned).ToList();
        if (meanings.Count < 2)
            return scanned;
        await using var db = await dbs.CreateDbContextAsync(ct);
        var known = await db.Ledger.Where(r => meanings.Contains(r.Serial)).Select(r => r.Serial).Distinct().ToListAsync(ct);
        return meanings.FirstOrDefault(known.Contains) ?? scanned;
    }

    /// <summary>A part's line as people are shown it; null where the ledger has no such part.</summary>
    public async Task<PartLineView?> ViewAsync(string serial, CancellationToken ct)
    {
        var line = await LineAsync(serial, ct);
        return line.Movements.Count == 0
            ? null
            : new(
                (await OfAsync([line.Serial], ct)).FirstOrDefault(),
                line.Serial,
                line.Movements,
                [.. line.Movements.Select(m => m.Told())]
            );
    }

    /// <summary>Written in the writer's turn, so that nobody moves the part in between.</summary>
    /// <returns>Those that were new.</returns>
    public async Task<IReadOnlyList<Movement>> WriteAsync(IReadOnlyCollection<Movement> movements, CancellationToken ct)
    {
        IReadOnlyList<Movement> written = [];
        await journal.AloneAsync(async connection => written = await connection.Pen.WriteAsync(movements, null, time.GetUtcNow()), ct);
        return written;
    }

    /// <summary>The parts of one holder, by model and serial, after one of them.</summary>
    /// <param name="after">Model and serial of the last one seen.</param>
    public async Task<IReadOnlyList<StoredPart>> HeldAsync(
        Holder holder,
        (string Model, string Serial)? after,
        int most,
        CancellationToken ct
    )
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var rows = db.Parts.AsNoTracking().Where(p => p.HolderKind == holder.Kind && p.Holder == holder.Name);
        if (holder.Shelf is { } shelf)
            rows = rows.Where(p => p.Shelf == shelf);
        if (after is var (model, serial))
            rows = rows.Where(p => string.Compare(p.Model, model) > 0 || (p.Model == model && string.Compare(p.Serial, serial) > 0));
        return await ToldAsync(rows.OrderBy(p => p.Model).ThenBy(p => p.Serial).Take(most), ct);
    }

    /// <summary>Those of these serials that the ledger knows.</summary>
    public async Task<IReadOnlyList<StoredPart>> OfAsync(IReadOnlyCollection<string> serials, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var found = new List<StoredPart>();
        foreach (var some in serials.Select(SerialNumber.Normalise).Distinct().Chunk(500))
            found.AddRange(await ToldAsync(db.Parts.AsNoTracking().Where(p => some.Contains(p.Serial)), ct));
        return found;
    }

    /// <summary>What is set aside and lies in a depot, of one depot or of all.</summary>
    public async Task<IReadOnlyList<StoredPart>> ToPickAsync(string? depot, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await ToldAsync(
            db.Parts.AsNoTracking()
                .Where(p => p.ReservedFor != null && p.HolderKind == HolderKind.Depot && (depot == null || p.Holder == depot))
                .OrderBy(p => p.ReservedFor)
                .Take(MostTold),
            ct
        );
    }

    /// <summary>How many of each model lie in each depot.</summary>
    public async Task<IReadOnlyList<ShelfLine>> ShelvesAsync(string? depot, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var lines = await db
            .Parts.AsNoTracking()
            .Where(p => p.HolderKind == HolderKind.Depot && (depot == null || p.Holder == depot))
            .GroupBy(p => new { p.Holder, p.Model })
            .Select(g => new
            {
                g.Key.Holder,
                g.Key.Model,
                Bytes = g.Max(p => p.Bytes),
                There = g.Count(),
                Free = g.Count(p => p.ReservedFor == null && p.UnwipedFrom == null && p.Apart == null),
                ToWipe = g.Count(p => p.UnwipedFrom != null && p.Apart != SetApart.ToBeDestroyed && p.Apart != SetApart.Evidence),
            })
            .OrderBy(g => g.Holder)
            .ThenBy(g => g.Model)
            .ToListAsync(ct);
        return ShelfLine.Together(
            lines.Select(l => new ShelfLine(l.Holder, l.Model, l.Bytes, l.There, l.Free, l.ToWipe)),
            await ModelNamesAsync(db, ct)
        );
    }

    private static async Task<ModelNames> ModelNamesAsync(NailcrowDb db, CancellationToken ct) =>
        new(await db.DriveModels.Select(m => m.Id).OrderBy(id => id).ToListAsync(ct));

    /// <summary>What people and carriers have on the way, the earliest due first; what has no day comes last.</summary>
    public async Task<IReadOnlyList<StoredPart>> OnTheWayAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await ToldAsync(
            db.Parts.AsNoTracking()
                .Where(p => p.Going != null && (p.HolderKind == HolderKind.Carrier || p.HolderKind == HolderKind.Engineer))
                .OrderBy(p => p.DueBy == null)
                .ThenBy(p => p.DueBy)
                .ThenBy(p => p.Since)
                .Take(MostTold),
            ct
        );
    }

    /// <summary>
    /// Parts that people and carriers have, whose serial has the first or the last half of this one: one slip spoils only one half,
    /// so none that is one slip away is missed, however many are on the way.
    /// </summary>
    public async Task<IReadOnlyList<string>> NearlyAsync(string serial, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var key = SerialNumber.Normalise(serial);
        var part = (key.Length - 1) / 2; // two neighbours that are swapped may be the middle ones
        if (part < LeastOfHalf)
            return [];
        var (head, headEnd) = Beginning.With(key[..part]);
        var (tail, tailEnd) = Beginning.Reversed(key[^part..]);
        var away = db.Parts.AsNoTracking().Where(p => p.HolderKind == HolderKind.Carrier || p.HolderKind == HolderKind.Engineer);
        var byHead = away.Where(p => string.Compare(p.Serial, head) >= 0 && string.Compare(p.Serial, headEnd) < 0);
        var byTail = away.Where(p => string.Compare(p.SerialReversed, tail) >= 0 && string.Compare(p.SerialReversed, tailEnd) < 0);
        return
        [
            .. await byHead.Select(p => p.Serial).Take(MostNearly).ToListAsync(ct),
            .. await byTail.Select(p => p.Serial).Take(MostNearly).ToListAsync(ct),
        ];
    }

    /// <summary>Other parts whose serials may be taken for one that was read, by their serials.</summary>
    public async Task<IReadOnlyList<StoredPart>> AlikeAsync(string serial, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var (key, looks) = (SerialNumber.Normalise(serial), SerialComparison.Looks(serial));
        return await ToldAsync(
            db.Parts.AsNoTracking().Where(p => p.Looks == looks && p.Serial != key).OrderBy(p => p.Serial).Take(MostAlike),
            ct
        );
    }

    private const int MostAlike = 5;

    // A batch of one model shares its first half; what a maker counts up is in the last.
    private const int MostNearly = 5_000;
    private const int LeastOfHalf = 3;

    /// <summary>What should have been there by a day, and is not, the latest first.</summary>
    public async Task<IReadOnlyList<StoredPart>> LateAsync(DateOnly today, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await ToldAsync(
            db.Parts.AsNoTracking()
                .Where(p => p.DueBy != null && p.DueBy < today && p.Going != null)
                .OrderBy(p => p.DueBy)
                .ThenBy(p => p.Serial)
                .Take(MostTold),
            ct
        );
    }

    /// <summary>Tickets with something that has to be somewhere by a day or earlier, and is not there.</summary>
    /// <param name="after">The last one that was given; 0 for the first page.</param>
    public async Task<IReadOnlyList<long>> WithDueAsync(DateOnly day, long after, int most, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db
            .Parts.AsNoTracking()
            .Where(p => p.DueBy != null && p.DueBy <= day && p.Going != null && p.Ticket > after)
            .Select(p => p.Ticket ?? 0)
            .Distinct()
            .OrderBy(t => t)
            .Take(most)
            .ToListAsync(ct);
    }

    /// <summary>What came back to depots, and nobody has looked at since.</summary>
    public async Task<IReadOnlyList<StoredPart>> ToInspectAsync(string? depot, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await ToldAsync(
            db.Parts.AsNoTracking()
                .Where(p => p.ToInspect != null && p.HolderKind == HolderKind.Depot && (depot == null || p.Holder == depot))
                .OrderBy(p => p.Since)
                .Take(MostTold),
            ct
        );
    }

    /// <summary>Used drives in depots with another machine's data on them.</summary>
    public async Task<IReadOnlyList<StoredPart>> ToWipeAsync(string? depot, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await ToldAsync(
            db.Parts.AsNoTracking()
                .Where(p =>
                    p.HolderKind == HolderKind.Depot
                    && p.UnwipedFrom != null
                    && p.Apart != SetApart.ToBeDestroyed
                    && p.Apart != SetApart.Evidence // what is destroyed needs no wipe, and evidence must not have one
                    && (depot == null || p.Holder == depot)
                )
                .OrderBy(p => p.Since)
                .Take(MostTold),
            ct
        );
    }

    /// <summary>What lies apart from all stock in depots: to be destroyed, or as evidence.</summary>
    public async Task<IReadOnlyList<StoredPart>> ApartAsync(string? depot, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await ToldAsync(
            db.Parts.AsNoTracking()
                .Where(p => p.Apart != null && (depot == null || p.Holder == depot))
                .OrderBy(p => p.Apart)
                .ThenBy(p => p.Since)
                .Take(MostTold),
            ct
        );
    }

    /// <summary>Who has how many with them: on the way, and in their vans.</summary>
    public async Task<IReadOnlyList<CarriedLine>> CarriedAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var lines = await db
            .Parts.AsNoTracking()
            .Where(p => p.HolderKind == HolderKind.Engineer || p.HolderKind == HolderKind.Van)
            .GroupBy(p => new { p.HolderKind, p.Holder })
            .Select(g => new
            {
                g.Key.HolderKind,
                g.Key.Holder,
                Parts = g.Count(),
                Oldest = g.Min(p => p.Since),
            })
            .OrderBy(g => g.Holder)
            .Take(MostTold)
            .ToListAsync(ct);
        return [.. lines.Select(l => new CarriedLine(new(l.HolderKind, l.Holder), l.Parts, l.Oldest))];
    }

    /// <summary>What is used of each model, and what there is of it.</summary>
    public async Task<IReadOnlyList<OrderLine>> ToOrderAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var since = time.GetUtcNow().AddDays(-Ordering.Days);
        var fitted = await db
            .Parts.Where(p => p.HolderKind == HolderKind.Bay && p.Since >= since && p.Model != "")
            .GroupBy(p => p.Model)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, ct);
        var free = await db
            .Parts.Where(p => p.HolderKind == HolderKind.Depot && p.ReservedFor == null && p.UnwipedFrom == null && p.Apart == null)
            .GroupBy(p => p.Model)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, ct);
        return Ordering.Of(fitted, free, await ModelNamesAsync(db, ct));
    }

    /// <summary>In one pass over all parts, as of one moment.</summary>
    public async Task<Balance> BalanceAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        using var takes = db.TakesAllTheTimeItNeeds();
        await using var moment = await db.Product.BeginReadingAsync(db, ct);
        var balancing = new Balancing();
        await foreach (var line in LedgerCheck.LinesAheadAsync(db, ct))
            balancing.Add(line);
        return balancing.Result(await SupplyBook.BalanceAsync(db, ct));
    }

    private static async Task<IReadOnlyList<StoredPart>> ToldAsync(IQueryable<PartRow> rows, CancellationToken ct) =>
        [.. (await rows.ToListAsync(ct)).Select(Told)];

    internal static StoredPart Told(PartRow p) =>
        new(
            p.Serial,
            p.Model,
            p.Bytes,
            new(p.HolderKind, p.HolderKind == HolderKind.Bay && p.Asset is not null ? $"{p.Holder} of {p.Asset}" : p.Holder, p.Shelf),
            p.Since,
            p.ReservedFor,
            p.Going,
            p.DueBy,
            p.UnwipedFrom,
            p.Ticket,
            p.Apart
        );
}
