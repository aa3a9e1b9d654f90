using System.Data.Common;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Products;
using Npgsql;

namespace Nailcrow.Store.Moving;

/// <summary>A PostgreSQL.</summary>
internal sealed class ServerSide(PostgresNailcrowDb db) : Side(db)
{
    private IAsyncDisposable? _held;

    /// <summary>One that starts waits for the turn that is held from here on.</summary>
    public override async Task<string?> InUseAsync(CancellationToken ct)
    {
        _held ??= await Db.Product.TurnAsync(Db, WritersTurn.Tables, ct);
        var alive = new List<string>();
        await using var rows = await Asking.RowsAsync(Db, NodesAtWork.Names, ct);
        while (await rows.Reader.ReadAsync(ct))
            alive.Add(rows.Reader.GetString(0));
        return alive.Count == 0 ? null : $"{string.Join(", ", alive)} {(alive.Count == 1 ? "works" : "work")} on it.";
    }

    public override async Task<long> WriteAsync(MovedTable table, IAsyncEnumerable<object?[]> rows, CancellationToken ct)
    {
        await using var copy = await ((NpgsqlConnection)Connection).BeginBinaryImportAsync(
            $"COPY \"{table.Name}\" ({table.Names}) FROM STDIN (FORMAT BINARY)",
            ct
        );
        copy.Timeout = TimeSpan.Zero;
        // The name of a kind without how long it may be.
        string[] kinds = [.. table.Columns.Select(c => c.StoreType.Split('(')[0])];
        object?[] last = [];
        try
        {
            await foreach (var row in rows.WithCancellation(ct))
            {
                last = row;
                await copy.StartRowAsync(ct);
                for (var i = 0; i < row.Length; i++)
                    if (row[i] is { } value)
                        await copy.WriteAsync(value, kinds[i], ct);
                    else
                        await copy.WriteNullAsync(ct);
            }
            return (long)await copy.CompleteAsync(ct);
        }
        catch (PostgresException e) when (e.SqlState.StartsWith("22", StringComparison.Ordinal)) // class 22, Data Exception
        {
            throw new NotMovableException($"{table.Name} takes a row not, at or before {table.Said(last)}: {e.MessageText} ({e.Where})");
        }
    }

    public override async Task<IReadOnlyDictionary<string, long>> LastNumbersAsync(CancellationToken ct)
    {
        var last = new Dictionary<string, long>();
        foreach (var (table, sequence) in await SequencesAsync(ct))
            last[table] = await Asking.NumberAsync(Db, $"SELECT CASE WHEN is_called THEN last_value ELSE 0 END FROM {sequence}", ct);
        return last;
    }

    public override async Task<long> EverGivenAsync(string table, long last, CancellationToken ct)
    {
        await using var rows = await Asking.RowsAsync(Db, $"SELECT number FROM ever_given WHERE name = '{table}'", ct);
        return await rows.Reader.ReadAsync(ct) ? rows.Reader.GetInt64(0) : last;
    }

    public override async Task NumberOnAsync(string table, long last, long everGiven, CancellationToken ct)
    {
        if ((await SequencesAsync(ct)).TryGetValue(table, out var sequence))
            await DoAsync($"SELECT setval('{sequence}', {Math.Max(last, 1)}, {(last > 0 ? "true" : "false")})", ct);
        await DoAsync($"UPDATE ever_given SET number = {everGiven} WHERE name = '{table}'", ct);
    }

    /// <summary>What numbers the rows of a table, by the table's name.</summary>
    private async Task<Dictionary<string, string>> SequencesAsync(CancellationToken ct)
    {
        var found = new Dictionary<string, string>();
        await using var rows = await Asking.RowsAsync(
            Db,
            "SELECT table_name::text, pg_get_serial_sequence(quote_ident(table_name), column_name) FROM information_schema.columns "
                + "WHERE table_schema = current_schema() AND pg_get_serial_sequence(quote_ident(table_name), column_name) IS NOT NULL",
            ct
        );
        while (await rows.Reader.ReadAsync(ct))
            found[rows.Reader.GetString(0)] = rows.Reader.GetString(1);
        return found;
    }

    protected override object Value(DbDataReader reader, int column, Type kind)
    {
        var value = kind == typeof(DateOnly) ? reader.GetFieldValue<DateOnly>(column) : reader.GetValue(column);
        return value.GetType() == kind
            ? value
            : throw new NotMovableException($"a {value.GetType().Name} stands where a {kind.Name} is kept");
    }

    public override async ValueTask DisposeAsync()
    {
        if (_held is not null)
            await _held.DisposeAsync();
        await base.DisposeAsync();
    }
}
