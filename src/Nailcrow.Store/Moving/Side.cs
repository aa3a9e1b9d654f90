using System.Data.Common;
using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.Moving;

/// <summary>
/// One end of a move: a database read and written row by row in its own words. Questions of EF that were compiled for one product are of
/// no use on another, so of two in one process one at least is asked this way.
/// </summary>
internal abstract class Side(NailcrowDb db) : IAsyncDisposable
{
    public NailcrowDb Db => db;

    protected DbConnection Connection => db.Database.GetDbConnection();

    protected DbTransaction? Transaction => db.Database.CurrentTransaction?.GetDbTransaction();

    /// <summary>Why somebody works on it just now, as a sentence; null where nobody does, and nobody begins to until this is disposed of.</summary>
    public abstract Task<string?> InUseAsync(CancellationToken ct);

    /// <summary>What stands in rows in order of their keys, from one key to another where they are given.</summary>
    public async IAsyncEnumerable<object?[]> RowsAsync(
        MovedTable table,
        IReadOnlyList<Type> kinds,
        (object First, object Last)? range,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        var where = range is null ? "" : $"WHERE {table.KeyNames} BETWEEN @first AND @last ";
        await using var ask = Command($"SELECT {table.Names} FROM \"{table.Name}\" {where}ORDER BY {table.KeyNames}");
        if (range is var (first, last))
        {
            Give(ask, "@first", first);
            Give(ask, "@last", last);
        }
        await using var reader = await ask.ExecuteReaderAsync(ct);
        while (await reader.ReadAsync(ct))
            yield return Row(table, reader, kinds);
    }

    /// <summary>Keys in order, of a table that has one column for them, each with what tells its row from another of that key.</summary>
    public async IAsyncEnumerable<(object Key, string? Mark)> KeysAsync(
        MovedTable table,
        Type kind,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        var mark = table.Mark is { } column ? $"\"{column}\"" : "NULL";
        await using var ask = Command($"SELECT {table.KeyNames}, {mark} FROM \"{table.Name}\" ORDER BY {table.KeyNames}");
        await using var reader = await ask.ExecuteReaderAsync(ct);
        while (await reader.ReadAsync(ct))
            yield return (Value(reader, 0, kind), reader.IsDBNull(1) ? null : reader.GetString(1));
    }

    /// <summary>Writes rows in the transaction that is open.</summary>
    /// <returns>How many there were.</returns>
    public abstract Task<long> WriteAsync(MovedTable table, IAsyncEnumerable<object?[]> rows, CancellationToken ct);

    public Task EmptyAsync(MovedTable table, CancellationToken ct) => DoAsync($"DELETE FROM \"{table.Name}\"", ct);

    public async Task RemoveAsync(MovedTable table, object key, CancellationToken ct)
    {
        await using var remove = Command($"DELETE FROM \"{table.Name}\" WHERE {table.KeyNames} = @key");
        Give(remove, "@key", key);
        await remove.ExecuteNonQueryAsync(ct);
    }

    public Task<bool> HasRowsAsync(MovedTable table, CancellationToken ct) => AnyAsync($"SELECT 1 FROM \"{table.Name}\" LIMIT 1", ct);

    /// <summary>The last number that the database gave to a row of each table whose rows it numbers.</summary>
    public abstract Task<IReadOnlyDictionary<string, long>> LastNumbersAsync(CancellationToken ct);

    /// <summary>How many rows a table ever had, of the numbers given to them.</summary>
    public virtual Task<long> EverGivenAsync(string table, long last, CancellationToken ct) => Task.FromResult(last);

    /// <summary>Goes on numbering after that, and remembers how many rows there ever were.</summary>
    public abstract Task NumberOnAsync(string table, long last, long everGiven, CancellationToken ct);

    public virtual ValueTask DisposeAsync() => db.DisposeAsync();

    protected Task DoAsync(string sql, CancellationToken ct) => Asking.DoAsync(db, sql, ct);

    protected async Task<bool> AnyAsync(string sql, CancellationToken ct)
    {
        await using var ask = Command(sql);
        return await ask.ExecuteScalarAsync(ct) is not (null or DBNull);
    }

    protected DbCommand Command(string sql)
    {
        var command = Connection.CreateCommand();
        (command.CommandText, command.Transaction, command.CommandTimeout) = (sql, Transaction, 0);
        return command;
    }

    protected static void Give(DbCommand command, string name, object? value)
    {
        var parameter = command.CreateParameter();
        (parameter.ParameterName, parameter.Value) = (name, value ?? DBNull.Value);
        command.Parameters.Add(parameter);
    }

    /// <summary>What stands in a column; nothing of it is taken for something else than it is.</summary>
    /// <exception cref="NotMovableException">It is of another kind than the column's.</exception>
    protected abstract object Value(DbDataReader reader, int column, Type kind);

    private object?[] Row(MovedTable table, DbDataReader reader, IReadOnlyList<Type> kinds)
    {
        var row = new object?[kinds.Count];
        for (var i = 0; i < row.Length; i++)
            try
            {
                row[i] = reader.IsDBNull(i) ? null : Value(reader, i, kinds[i]);
            }
            catch (Exception e) when (e is NotMovableException or InvalidCastException or FormatException or OverflowException)
            {
                throw new NotMovableException($"{table.Said(row)}: {table.Columns[i].Name} cannot be read: {e.Message}");
            }
        return row;
    }
}
