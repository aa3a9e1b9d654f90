using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store.Moving;

/// <summary>Copies rows from one end to the other, and reads them back there before they are kept.</summary>
internal sealed class Copying(Side from, Side to)
{
    private const int AtOnce = 5_000;
    private const int PicturesAtOnce = 8; // each may have 8 MB

    /// <summary>Rows that are only ever added: those that are not there yet.</summary>
    /// <returns>How many were added, and how many are there.</returns>
    public async Task<(long Added, long There)> AddAsync(MovedTable table, CancellationToken ct)
    {
        var (missing, gone, there) = await MissingAsync(table, ct);
        var added = 0L;
        foreach (var (first, last) in missing)
        {
            var rows = new List<object?[]>();
            await foreach (var row in MovedRowsAsync(table, (first, last), ct))
                rows.Add(row);
            await using var transaction = await to.Db.Database.BeginTransactionAsync(ct);
            added += await to.WriteAsync(table, rows.ToAsyncEnumerable(), ct);
            await HoldAsync(table, rows.ToAsyncEnumerable(), (ToThere(table, first), ToThere(table, last)), ct);
            await transaction.CommitAsync(ct);
        }
        foreach (var key in gone)
            await to.RemoveAsync(table, key, ct);
        return (added, there + added);
    }

    /// <summary>Rows that change: all of them, in one transaction.</summary>
    public async Task<(long Added, long There)> WriteAnewAsync(IReadOnlyList<MovedTable> tables, CancellationToken ct)
    {
        await using var transaction = await to.Db.Database.BeginTransactionAsync(ct);
        foreach (var table in tables.Reverse()) // whoever points to others goes first
            await to.EmptyAsync(table, ct);
        var written = 0L;
        foreach (var table in tables)
        {
            written += await to.WriteAsync(table, MovedRowsAsync(table, null, ct), ct);
            await HoldAsync(table, MovedRowsAsync(table, null, ct), null, ct);
        }
        await transaction.CommitAsync(ct);
        return (written, written);
    }

    /// <summary>What is there is held against what was to be.</summary>
    private async Task HoldAsync(
        MovedTable table,
        IAsyncEnumerable<object?[]> expected,
        (object First, object Last)? range,
        CancellationToken ct
    )
    {
        await using var there = to.RowsAsync(table, [.. table.Columns.Select(c => c.ToKind)], range, ct).GetAsyncEnumerator(ct);
        await foreach (var row in expected.WithCancellation(ct))
        {
            if (!await there.MoveNextAsync())
                throw new NotMovableException($"{table.Said(row)} was written and is not there");
            for (var i = 0; i < row.Length; i++)
                if (!table.Columns[i].Same(row[i], there.Current[i]))
                    throw new NotMovableException(
                        $"{table.Said(row)} reads back otherwise: {table.Columns[i].Name} of {table.Said(there.Current)}"
                    );
        }
        if (await there.MoveNextAsync())
            throw new NotMovableException($"{table.Said(there.Current)} is there and was not written");
    }

    private async IAsyncEnumerable<object?[]> MovedRowsAsync(
        MovedTable table,
        (object First, object Last)? range,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        await foreach (var row in from.RowsAsync(table, [.. table.Columns.Select(c => c.FromKind)], range, ct))
        {
            var moved = new object?[row.Length];
            for (var i = 0; i < row.Length; i++)
                try
                {
                    moved[i] = table.Columns[i].Moved(row[i]);
                }
                catch (NotMovableException e)
                {
                    throw new NotMovableException($"{table.Said(row)}: {e.Message}");
                }
            yield return moved;
        }
    }

    /// <summary>
    /// Both ends' keys side by side: stretches that are only at this end, none longer than what is copied at once; keys that are only at the
    /// other; and how many are at both.
    /// </summary>
    private async Task<(List<(object First, object Last)> Missing, List<object> Gone, long There)> MissingAsync(
        MovedTable table,
        CancellationToken ct
    )
    {
        var column = table.Columns[table.Key.Single()];
        var most = table.Columns.Any(c => c.FromKind == typeof(byte[])) ? PicturesAtOnce : AtOnce;
        var (missing, gone, both, length) = (new List<(object First, object Last)>(), new List<object>(), 0L, 0);
        await using var here = from.KeysAsync(table, column.FromKind, ct).GetAsyncEnumerator(ct);
        await using var there = to.KeysAsync(table, column.ToKind, ct).GetAsyncEnumerator(ct);
        var (hasHere, hasThere) = (await here.MoveNextAsync(), await there.MoveNextAsync());
        while (hasHere || hasThere)
        {
            var order =
                !hasHere ? 1
                : !hasThere ? -1
                : Comparer<object>.Default.Compare(column.Moved(here.Current.Key), there.Current.Key);
            if (order == 0 && here.Current.Mark != there.Current.Mark)
                throw new NotMovableException(
                    $"{table.Name} {here.Current.Key} is another one at the other place, which was filled from another record; give an empty one"
                );
            if (order < 0)
            {
                if (length is 0 || length == most)
                    missing.Add((here.Current.Key, here.Current.Key));
                else
                    missing[^1] = (missing[^1].First, here.Current.Key);
                length = length == most ? 1 : length + 1;
            }
            else
                length = 0;
            if (order > 0)
                gone.Add(there.Current.Key);
            both += order == 0 ? 1 : 0;
            hasHere = order <= 0 ? await here.MoveNextAsync() : hasHere;
            hasThere = order >= 0 ? await there.MoveNextAsync() : hasThere;
        }
        return (missing, gone, both);
    }

    private static object ToThere(MovedTable table, object key) =>
        table.Columns[table.Key.Single()].Moved(key) ?? throw new InvalidOperationException("A key is never nothing.");
}
