using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Rows;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Appliances;

/// <summary>A drive as the firm's list has it, and where the ledger has it, if that knows it.</summary>
/// <param name="With">Who has it, where it is in no machine and lies nowhere to be used.</param>
public sealed record ListedDrive(
    string Serial,
    string Model,
    long Bytes,
    string? Asset,
    string? Bay,
    string? Depot,
    int? Hours = null,
    string? UsedIn = null,
    string? With = null
);

/// <summary>A snapshot that was kept, and the entry that took it.</summary>
public sealed record KeptSnapshot(long Ticket, long Seq, string Asset, DateTimeOffset At, string Source, string By);

/// <summary>Every drive the firm knows, what became of it, and every snapshot of an appliance.</summary>
public sealed class Drives(IDbContextFactory<NailcrowDb> dbs)
{
    /// <summary>By the whole serial or its last characters.</summary>
    public async Task<IReadOnlyList<ListedDrive>> FindAsync(string text, int most, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var (from, to) = Beginning.Reversed(SerialNumber.Normalise(text));
        var found = new Dictionary<string, ListedDrive>();
        await foreach (var row in EndingWith(db, from, to, most).WithCancellation(ct))
            found[row.Serial] = Of(row);
        await foreach (var part in PartsEndingWith(db, from, to, most).WithCancellation(ct))
            found[part.Serial] = Of(part, found.GetValueOrDefault(part.Serial));
        return [.. found.Values.OrderBy(d => Projecting.Reversed(d.Serial), StringComparer.Ordinal).Take(most)];
    }

    // Compiled once: building the question takes longer than the index takes to answer it.
    private static readonly Func<NailcrowDb, string, string, int, IAsyncEnumerable<DriveRow>> EndingWith = EF.CompileAsyncQuery(
        (NailcrowDb db, string from, string to, int most) =>
            db
                .Drives.AsNoTracking()
                .Where(d => string.Compare(d.SerialReversed, from) >= 0 && string.Compare(d.SerialReversed, to) < 0)
                .OrderBy(d => d.SerialReversed)
                .Take(most)
    );

    private static readonly Func<NailcrowDb, string, string, int, IAsyncEnumerable<PartRow>> PartsEndingWith = EF.CompileAsyncQuery(
        (NailcrowDb db, string from, string to, int most) =>
            db
                .Parts.AsNoTracking()
                .Where(p => string.Compare(p.SerialReversed, from) >= 0 && string.Compare(p.SerialReversed, to) < 0)
                .OrderBy(p => p.SerialReversed)
                .Take(most)
    );

    /// <summary>What the journals say of a drive, oldest first.</summary>
    public async Task<IReadOnlyList<LifeEvent>> LifeAsync(string serial, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var key = SerialNumber.Normalise(serial);
        var rows = await db
            .LifeEvents.AsNoTracking()
            .Where(e => e.Serial == key)
            .OrderBy(e => e.At)
            .ThenBy(e => e.Ticket)
            .ThenBy(e => e.Nth)
            .Take(1000)
            .ToListAsync(ct);
        return
        [
            .. rows.Select(r => new LifeEvent(
                r.Serial,
                r.At,
                Words.Parse<LifeEventKind>(r.Kind, "kind") is Parsed<LifeEventKind>.Ok(var kind) ? kind : LifeEventKind.Seen,
                r.Asset,
                r.Bay,
                r.Sentence,
                r.By,
                r.Ticket
            )),
        ];
    }

    /// <summary>
    /// Drives that lie in depots and are set aside for nobody, or one of them; of a used one that was not wiped since, which machine
    /// it was in. The largest first: what is cut off is too small for most.
    /// </summary>
    public async Task<IReadOnlyList<StockPart>> StockAsync(string? serial, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var rows = await db
            .Parts.AsNoTracking()
            .Where(p =>
                (p.HolderKind == HolderKind.Depot || p.HolderKind == HolderKind.Van)
                && p.ReservedFor == null
                && p.Apart == null
                && (serial == null || p.Serial == serial)
            )
            .OrderByDescending(p => p.Bytes)
            .ThenBy(p => p.Serial)
            .Take(2000)
            .ToListAsync(ct);
        return
        [
            .. rows.Select(r => new StockPart(
                r.Serial,
                r.Model,
                r.Bytes,
                new Holder(r.HolderKind, r.Holder).Place(),
                r.Hours,
                r.UnwipedFrom,
                Since: r.Since
            )),
        ];
    }

    /// <summary>Which machine a drive was in last by what tickets saw, where no wipe is on record since; null for one that was in none.</summary>
    /// <param name="wipedAt">When the ledger has it wiped last.</param>
    public async Task<string?> UsedUnwipedAsync(string serial, DateTimeOffset? wipedAt, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var key = SerialNumber.Normalise(serial);
        var events = await db.LifeEvents.AsNoTracking().Where(e => e.Serial == key).OrderBy(e => e.At).Take(1000).ToListAsync(ct);
        var used = events.FindLast(e =>
            e.Kind == Words.Of(LifeEventKind.Seen) || (e.Kind == Words.Of(LifeEventKind.Moved) && e.Bay != null)
        );
        return used is not null && !(wipedAt >= used.At) && !events.Exists(e => e.Kind == Words.Of(LifeEventKind.Wiped) && e.At >= used.At)
            ? used.Asset
            : null;
    }

    public async Task<IReadOnlyList<ListedDrive>> InAsync(string asset, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return [.. (await db.Drives.AsNoTracking().Where(d => d.Asset == asset).OrderBy(d => d.Bay).Take(1000).ToListAsync(ct)).Select(Of)];
    }

    /// <summary>Every snapshot of an appliance, newest first.</summary>
    public async Task<IReadOnlyList<KeptSnapshot>> SnapshotsAsync(string asset, int most, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return
        [
            .. (
                await db.Snapshots.AsNoTracking().Where(s => s.Asset == asset).OrderByDescending(s => s.At).Take(most).ToListAsync(ct)
            ).Select(s => new KeptSnapshot(s.Ticket, s.Seq, s.Asset, s.At, s.Source, s.By)),
        ];
    }

    /// <summary>The bays in one kept snapshot; null where that entry took none.</summary>
    public async Task<Snapshot?> SnapshotAsync(long ticket, long seq, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var row = await db.Journal.AsNoTracking().FirstOrDefaultAsync(r => r.Ticket == ticket && r.Seq == seq, ct);
        return row?.ToEntry() is { Body: SnapshotTaken taken } entry ? taken.Snapshot with { TakenAt = entry.Happened } : null;
    }

    /// <summary>The newest snapshot of each of these appliances that has one.</summary>
    public async Task<IReadOnlyDictionary<string, Snapshot>> LatestAsync(IReadOnlyCollection<string> assets, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var newest = await db
            .Snapshots.AsNoTracking()
            .Where(s => assets.Contains(s.Asset))
            .GroupBy(s => s.Asset)
            .Select(g => g.OrderByDescending(s => s.At).First())
            .ToListAsync(ct);
        var found = new Dictionary<string, Snapshot>();
        foreach (var row in newest)
            if (await SnapshotAsync(row.Ticket, row.Seq, ct) is { } snapshot)
                found[row.Asset] = snapshot;
        return found;
    }

    private static ListedDrive Of(PartRow part, ListedDrive? listed)
    {
        var holder = new Holder(part.HolderKind, part.Holder, part.Shelf);
        var lies = part.HolderKind is HolderKind.Depot or HolderKind.Van;
        return new(
            part.Serial,
            part.Model.Length > 0 ? part.Model : listed?.Model ?? "",
            part.Bytes > 0 ? part.Bytes : listed?.Bytes ?? 0,
            part.HolderKind == HolderKind.Bay ? part.Asset : null,
            part.HolderKind == HolderKind.Bay ? part.Holder : null,
            lies ? holder.Place() : null,
            part.Hours ?? listed?.Hours,
            listed?.UsedIn,
            lies || part.HolderKind == HolderKind.Bay ? null : holder.ToString()
        );
    }

    internal static ListedDrive Of(DriveRow row) =>
        new(row.Serial, row.Model, row.Bytes, row.Asset, row.Bay, row.Depot, row.Hours, row.UsedIn);
}
