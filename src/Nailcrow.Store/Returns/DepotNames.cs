using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Returns;

namespace Nailcrow.Store.Returns;

/// <summary>What depots are called in which something lies: nobody writes a list of them.</summary>
public sealed class DepotNames(IDbContextFactory<NailcrowDb> dbs)
{
    // A firm has some dozens; whoever names each part's depot anew is not looked after by a spelling.
    private const int Most = 500;

    /// <summary>Of the depots in which something lies those that a name may mean: it alone where there is one of just that name, else all.</summary>
    public async Task<IReadOnlyList<string>> ForAsync(string name, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var parts = db.Parts.AsNoTracking().Where(p => p.HolderKind == HolderKind.Depot).Select(p => p.Holder);
        var supplies = db.Supplies.AsNoTracking().Where(s => s.HolderKind == HolderKind.Depot).Select(s => s.Holder);
        return await parts.AnyAsync(h => h == name, ct) || await supplies.AnyAsync(h => h == name, ct)
            ? [name]
            : [.. (await NamesAsync(parts, ct)).Union(await NamesAsync(supplies, ct))];
    }

    /// <summary>From one name to the next along the index: of each depot there are many rows, and of depots few.</summary>
    private static async Task<List<string>> NamesAsync(IQueryable<string> holders, CancellationToken ct)
    {
        var names = new List<string>();
        for (string? last = ""; names.Count < Most; names.Add(last))
        {
            var from = last;
            last = await holders.Where(h => string.Compare(h, from) > 0).OrderBy(h => h).FirstOrDefaultAsync(ct);
            if (last is null)
                break;
        }
        return names;
    }
}
