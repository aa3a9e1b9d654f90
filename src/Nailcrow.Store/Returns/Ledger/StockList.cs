using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.Returns.Ledger;

/// <summary>What a firm's list of drives says of its stock, as the first line of each part's life.</summary>
internal static class StockList
{
    // As many as hold writers up for some tenths of a second.
    private const int AtOnce = 200;

    /// <summary>Tells the ledger of drives that a list has in depots; where a part is that it knows, it says itself.</summary>
    public static async Task TellAsync(LedgerPen pen, IEnumerable<DriveRow> drives, string by, DateTimeOffset now)
    {
        foreach (var drive in drives)
            if ((await pen.LineAsync(drive.Serial)).Last is null)
                await pen.WriteAsync([Came(drive, now, by)], null, now);
    }

    /// <summary>A list says what came; where it is from then on is the ledger's to say.</summary>
    private static Movement Came(DriveRow drive, DateTimeOffset at, string by, string? note = null) =>
        new(
            Guid.CreateVersion7(),
            drive.Serial,
            MovementKind.Came,
            at,
            by,
            Holder.OfPlace(drive.Depot ?? ""),
            Part: new(drive.Model, drive.Bytes, drive.Hours, drive.UsedIn),
            Note: note
        );

    private static async Task<bool> IsLeftAsync(NailcrowDb db, CancellationToken ct) =>
        await Asking.NumberAsync(
            db,
            // Not "IS NOT NULL": a stretch of the index of depots, and not all drives that are anywhere.
            "SELECT CASE WHEN EXISTS (SELECT 1 FROM drive d WHERE d.depot >= '' AND NOT EXISTS (SELECT 1 FROM ledger l "
                + "WHERE l.serial = d.serial AND l.seq = 1)) THEN 1 ELSE 0 END",
            ct
        ) == 1;

    /// <summary>
    /// Stock that was on the list before there was a ledger, or before an import that was broken off had told it. It is dated before
    /// everything that tickets say, and in pieces, each in a turn of its own: interrupted, it goes on where it was.
    /// </summary>
    public static async Task TakeOverAsync(NailcrowDb db, DateTimeOffset now, CancellationToken ct)
    {
        if (!await IsLeftAsync(db, ct))
            return; // nearly every start: nothing is written, and nothing is compiled for the question
        var after = ""; // what was told is not looked at again to find what comes next
        while (true)
        {
            await using var transaction = await db.Product.BeginAsync(db, WritersTurn.Journal, ct);
            var drives = await db
                .Drives.AsNoTracking()
                .Where(d =>
                    string.Compare(d.Serial, after) > 0 && d.Depot != null && !db.Ledger.Any(l => l.Serial == d.Serial && l.Seq == 1)
                )
                .OrderBy(d => d.Serial)
                .Take(AtOnce)
                .ToListAsync(ct);
            var pen = new LedgerPen(db); // what it has read is so until the transaction ends
            foreach (var drive in drives)
                await pen.WriteAsync(
                    [Came(drive, ServiceClock.Earliest, "nailcrow", "It was on the list of stock, and the ledger had not been told.")],
                    null,
                    now
                );
            await transaction.CommitAsync(ct);
            if (drives.Count < AtOnce)
                return;
            after = drives[^1].Serial;
        }
    }
}
