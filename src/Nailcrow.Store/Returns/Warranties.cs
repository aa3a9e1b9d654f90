using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Terms;
using Nailcrow.Store.Rows;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Returns;

/// <summary>What is known of warranties: what was brought in as a list, and what makers answered since.</summary>
public sealed class Warranties(IDbContextFactory<NailcrowDb> dbs)
{
    /// <summary>Everything that may hold for one of these drives: what is said of it, and of models.</summary>
    public async Task<IReadOnlyList<KnownWarranty>> ForAsync(IEnumerable<string> serials, CancellationToken ct)
    {
        var ids = serials.Select(s => WarrantyRow.IdOf(SerialNumber.Normalise(s))).ToList();
        if (ids.Count == 0)
            return [];
        await using var db = await dbs.CreateDbContextAsync(ct);
        return
        [
            .. (await db.Warranties.AsNoTracking().Where(w => w.Model != null || ids.Contains(w.Id)).ToListAsync(ct)).Select(w => w.Read()),
        ];
    }

    /// <summary>Those that end first, first.</summary>
    /// <param name="find">The beginning or the end of a serial, or any part of a model's name; null for all.</param>
    /// <param name="after">The last one that was shown, by its end and what it is of; null for the first page.</param>
    public async Task<IReadOnlyList<KnownWarranty>> ListAsync(
        string? find,
        DateOnly? from,
        (DateOnly Until, string Of)? after,
        int most,
        CancellationToken ct
    )
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var rows = find is { Length: > 0 } ? Found(db, find) : db.Warranties.AsNoTracking();
        if (from is { } first)
            rows = rows.Where(w => w.Until >= first);
        if (after is var (until, of))
            rows = rows.Where(w => w.Until > until || (w.Until == until && w.Id.CompareTo(of) > 0));
        return [.. (await rows.OrderBy(w => w.Until).ThenBy(w => w.Id).Take(most).ToListAsync(ct)).Select(w => w.Read())];
    }

    /// <summary>
    /// A serial by its beginning or its end, a model by any part of its name: each by an index of its own. Asked for in one condition, all
    /// warranties would be read in the order of their ends. A firm has some models, and hundreds of thousands of drives.
    /// </summary>
    private static IQueryable<WarrantyRow> Found(NailcrowDb db, string find)
    {
        var (head, headEnd) = Beginning.With(SerialNumber.Normalise(find));
        var (tail, tailEnd) = Beginning.Reversed(SerialNumber.Normalise(find));
        var part = AnyPart.Of(find);
        var rows = db.Warranties.AsNoTracking();
        var ids = rows.Where(w => string.Compare(w.Serial, head) >= 0 && string.Compare(w.Serial, headEnd) < 0)
            .Select(w => w.Id)
            .Union(
                rows.Where(w => string.Compare(w.SerialReversed, tail) >= 0 && string.Compare(w.SerialReversed, tailEnd) < 0)
                    .Select(w => w.Id)
            )
            .Union(
                rows.Where(w =>
                        string.Compare(w.Id, WarrantyRow.Models) >= 0
                        && string.Compare(w.Id, WarrantyRow.ModelsEnd) < 0
                        && EF.Functions.Like(w.Model!, part, AnyPart.Escape)
                    )
                    .Select(w => w.Id)
            );
        return rows.Where(w => ids.Contains(w.Id));
    }

    /// <summary>The name by which a page goes on after this one.</summary>
    public static string NameOf(KnownWarranty known) => WarrantyRow.Of(known).Id;
}
