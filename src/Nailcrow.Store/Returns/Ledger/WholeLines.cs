using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store.Returns.Ledger;

/// <summary>
/// The lines of many parts or supplies, each whole, one after the other. They are read some at a time, so that whoever goes over them may
/// write on the same connection meanwhile: a server answers one question at a time.
/// </summary>
internal static class WholeLines
{
    /// <param name="atOnce">Of how many parts or supplies the lines are held.</param>
    public static async IAsyncEnumerable<(string Serial, List<string> Texts)> OfAsync(
        IQueryable<LedgerRow> rows,
        int atOnce,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        for (var after = ""; await SomeAsync(rows, after, atOnce, ct) is [.., var last] some; after = last.Serial)
            foreach (var one in some)
                yield return one;
    }

    /// <summary>Those that come next after one, as many as are asked for; none where there are no more.</summary>
    public static async Task<IReadOnlyList<(string Serial, List<string> Texts)>> SomeAsync(
        IQueryable<LedgerRow> rows,
        string after,
        int atOnce,
        CancellationToken ct
    )
    {
        if (await SerialsAsync(rows, after, atOnce, ct) is not [var first, ..] serials)
            return [];
        var last = serials[^1];
        var some = await rows.Where(r => string.Compare(r.Serial, first) >= 0 && string.Compare(r.Serial, last) <= 0)
            .OrderBy(r => r.Serial)
            .ThenBy(r => r.Seq)
            .Select(r => new { r.Serial, r.Text })
            .ToListAsync(ct);
        return [.. some.GroupBy(r => r.Serial).Select(one => (one.Key, one.Select(r => r.Text).ToList()))];
    }

    private static Task<List<string>> SerialsAsync(IQueryable<LedgerRow> rows, string after, int atOnce, CancellationToken ct) =>
        rows.Where(r => string.Compare(r.Serial, after) > 0).Select(r => r.Serial).Distinct().OrderBy(s => s).Take(atOnce).ToListAsync(ct);
}
