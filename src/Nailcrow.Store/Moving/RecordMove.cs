using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;

namespace Nailcrow.Store.Moving;

/// <summary>What came of a move.</summary>
public abstract record Moved
{
    /// <summary>Nothing was done, or nothing more.</summary>
    public sealed record Refused(string Why) : Moved;

    /// <summary>All was copied that was there, and more comes: somebody works on it yet.</summary>
    public sealed record NotAll(string Who) : Moved;

    /// <summary>The record is at the other place, and there only.</summary>
    /// <param name="Troubles">What is wrong with it, as it was before: it was moved as it stood.</param>
    public sealed record Whole(Checked Over, IReadOnlyList<Trouble> Troubles) : Moved;
}

/// <summary>
/// Moves a record from a file to a server or back, as often as it takes: what is only ever added to is copied once, and everything else
/// anew each time. A row stays at the other place only where it was read back there and is the same.
/// </summary>
/// <param name="target">The other place's, as a service there has them.</param>
public sealed class RecordMove(RecordPlace from, RecordPlace to, Database target, JournalCheck check, Seals seals, TimeProvider time)
{
    /// <param name="keys">Moves what is secret and in no table of the record, once it is known that the record moves.</param>
    /// <param name="tell">Takes a line for people as soon as something is done.</param>
    /// <exception cref="NotMovableException">Something stands in the record that cannot stand at the other place.</exception>
    public async Task<Moved> RunAsync(Func<Task> keys, Action<string> tell, CancellationToken ct)
    {
        await using var source = await from.OpenAsync(ct);
        if (!await Database.IsUpToDateAsync(source.Db, ct))
            return Refused(
                $"{from} is not of this version, or no record at all; start this version of the service on it once, which brings it up to date."
            );
        var gone = await MarkOf(source, ct);
        if (gone is not null && !Is(gone, NotHere.Left, to))
            return Refused(Database.WhyNotHere(gone, from.ToString()));
        await target.BringUpToDateAsync(ct);
        await using var into = await to.OpenAsync(ct);
        if (!await Database.IsUpToDateAsync(into.Db, ct))
            return Refused($"{to} was worked on by a newer version; move with that one.");
        if (gone is not null)
            return await MarkOf(into, ct) is { } half && Is(half, NotHere.Filling, from)
                ? await EndAsync(into, await CheckAsync(0, ct), ct) // it was killed in its last step
                : Refused(Database.WhyNotHere(gone, from.ToString()));
        var tables = MovedTable.All(source.Db, into.Db);
        var begun = await MarkOf(into, ct);
        if (await WhyNotIntoAsync(into, begun, tables, ct) is { } no)
            return Refused(no);
        if (await into.InUseAsync(ct) is { } there)
            return Refused($"Nothing can be moved to {to}: {there}");
        if (begun is null)
            await MarkAsync(to, NotHere.Filling, from, ct);
        await keys();
        var working = await source.InUseAsync(ct);
        var found = await CopyAsync(source, into, tables, tell, ct);
        if (working is not null)
            return new Moved.NotAll(working);
        await MarkAsync(from, NotHere.Left, to, ct);
        return await EndAsync(into, found, ct);
    }

    private static async Task<Moved> EndAsync(Side into, Moved.Whole found, CancellationToken ct)
    {
        await into.Db.Set<RecordPlaceRow>().ExecuteDeleteAsync(ct);
        return found;
    }

    /// <summary>Makes it the record again that is written here, whatever became of the one it was moved to.</summary>
    /// <returns>Where that was; null where none was moved.</returns>
    public static async Task<string?> ForgetAsync(RecordPlace place, CancellationToken ct)
    {
        await using var side = await place.OpenAsync(ct);
        if (await MarkOf(side, ct) is not { Why: NotHere.Left } mark)
            return null;
        await side.Db.Set<RecordPlaceRow>().ExecuteDeleteAsync(ct);
        return mark.Place;
    }

    private async Task<Moved.Whole> CopyAsync(
        Side source,
        Side into,
        IReadOnlyList<MovedTable> tables,
        Action<string> tell,
        CancellationToken ct
    )
    {
        // As of one moment, though others write meanwhile.
        await using var moment = await source.Db.Product.BeginReadingAsync(source.Db, ct);
        var head = await into.Db.Journal.MaxAsync(r => (long?)r.Position, ct) ?? 0;
        await into.Db.Product.RoomForAsync(into.Db, await JournalBatch.LastNumberAsync(source.Db, ct), ct);
        var copying = new Copying(source, into);
        foreach (var table in tables.Where(t => t.IsKept))
            tell($"{table.Name, -14} {Number(await copying.AddAsync(table, ct))}");
        var others = tables.Where(t => !t.IsKept).ToList();
        tell($"{others.Count} other tables {Number(await copying.WriteAnewAsync(others, ct))}");
        await NumberOnAsync(source, into, ct);
        return await CheckAsync(head, ct);
    }

    /// <param name="after">Pictures of entries up to that position have been looked at.</param>
    private async Task<Moved.Whole> CheckAsync(long after, CancellationToken ct)
    {
        var seal =
            await seals.NewestAsync(ct) is { } text && Seal.Parse(text, SealKey.OfNobody()).Is(out var read, out _) ? read.Seal : null;
        var troubles = new List<Trouble>();
        var over = await check.RunAsync(seal, readToo: false, troubles.Add, _ => { }, ct, picturesAfter: after);
        return new(over, troubles);
    }

    private static async Task NumberOnAsync(Side source, Side into, CancellationToken ct)
    {
        foreach (var (table, last) in await source.LastNumbersAsync(ct))
            await into.NumberOnAsync(table, last, await source.EverGivenAsync(table, last, ct), ct);
    }

    private async Task<string?> WhyNotIntoAsync(Side into, RecordPlaceRow? begun, IReadOnlyList<MovedTable> tables, CancellationToken ct)
    {
        if (begun is not null)
            return Is(begun, NotHere.Filling, from) ? null : Database.WhyNotHere(begun, to.ToString());
        foreach (var table in tables)
            if (await into.HasRowsAsync(table, ct))
                return $"{to} holds something already ({table.Name}); a record is moved only where nothing is.";
        return null;
    }

    private static bool Is(RecordPlaceRow mark, NotHere why, RecordPlace place) => mark.Why == why && mark.Place == place.ToString();

    private static Task<RecordPlaceRow?> MarkOf(Side side, CancellationToken ct) =>
        side.Db.Set<RecordPlaceRow>().AsNoTracking().SingleOrDefaultAsync(ct);

    private async Task MarkAsync(RecordPlace at, NotHere why, RecordPlace place, CancellationToken ct)
    {
        await using var side = await at.OpenAsync(ct); // of its own: whoever reads as of one moment writes nothing
        side.Db.Add(
            new RecordPlaceRow
            {
                Id = RecordPlaceRow.Only,
                Why = why,
                Place = place.ToString(),
                At = time.GetUtcNow(),
            }
        );
        await side.Db.SaveChangesAsync(ct);
    }

    private static string Number((long Added, long There) rows) =>
        string.Create(CultureInfo.InvariantCulture, $"{rows.There, 12:N0} rows, {rows.Added:N0} of them now");

    private static Moved.Refused Refused(string why) => new(why);
}
