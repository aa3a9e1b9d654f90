using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store.Returns.Ledger;

/// <summary>
/// The lines of many parts or supplies, each whole, one after the other. They are read some at a time, so that whoever goes over them may
/// write on the same connection meanwhile: a server answers one question at a time.
/// </summary>
internal static class WholeLines
{
    /// <param name="after">What sorts before all of them.</param>
    /// <param name="end">What sorts behind all of them.</param>
    /// <param name="atOnce">Of how many parts or supplies the lines are held.</param>
    public static async IAsyncEnumerable<(string Serial, List<string> Texts)> OfAsync(
        NailcrowDb db,
        string after,
        string end,
        int atOnce,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        for (; await SomeAsync(db, after, end, atOnce, ct) is [.., var last] some; after = last.Serial)
            foreach (var one in some)
                yield return one;
    }

    /// <summary>Those that come next after one, as many as are asked for; none where there are no more.</summary>
    public static async Task<IReadOnlyList<(string Serial, List<string> Texts)>> SomeAsync(
        NailcrowDb db,
        string after,
        string end,
        int atOnce,
        CancellationToken ct
    )
    {
        if (await SerialsAsync(db, after, end, atOnce, ct) is not [var first, ..] serials)
            return [];
        // From one end to one other: of two ends a file goes by the first it is told, and looks at all rows up to that.
        var last = serials[^1];
        var some = await db
            .Ledger.AsNoTracking()
            .Where(r => string.Compare(r.Serial, first) >= 0 && string.Compare(r.Serial, last) <= 0)
            .OrderBy(r => r.Serial)
            .ThenBy(r => r.Seq)
            .Select(r => new { r.Serial, r.Text })
            .ToListAsync(ct);
        return [.. some.GroupBy(r => r.Serial).Select(one => (one.Key, one.Select(r => r.Text).ToList()))];
    }

    // Grouped, which goes along the index and stops; what is made distinct is gathered to its end before some of it are taken.
    private static Task<List<string>> SerialsAsync(NailcrowDb db, string after, string end, int atOnce, CancellationToken ct) =>
        db
            .Ledger.Where(r => string.Compare(r.Serial, after) > 0 && string.Compare(r.Serial, end) < 0)
            .GroupBy(r => r.Serial)
            .Select(one => one.Key)
            .OrderBy(s => s)
            .Take(atOnce)
            .ToListAsync(ct);
}
