using System.Data.Common;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.Moving;

/// <summary>A SQLite file.</summary>
internal sealed class FileSide(SqliteNailcrowDb db, string file) : Side(db)
{
    private FileInUse? _held;

    public override Task<string?> InUseAsync(CancellationToken ct)
    {
        try
        {
            _held ??= FileInUse.Hold(file);
            return Task.FromResult<string?>(null);
        }
        catch (FileInUseException)
        {
            return Task.FromResult<string?>("A service works on it.");
        }
    }

    public override async Task<long> WriteAsync(MovedTable table, IAsyncEnumerable<object?[]> rows, CancellationToken ct)
    {
        await using var insert = Command(
            $"INSERT INTO \"{table.Name}\" ({table.Names}) VALUES ({string.Join(", ", table.Columns.Select((_, i) => $"@{i}"))})"
        );
        for (var i = 0; i < table.Columns.Count; i++)
            Give(insert, $"@{i}", null);
        await insert.PrepareAsync(ct);
        var written = 0L;
        await foreach (var row in rows.WithCancellation(ct))
        {
            for (var i = 0; i < row.Length; i++)
                insert.Parameters[i].Value = row[i] ?? DBNull.Value;
            await insert.ExecuteNonQueryAsync(ct);
            written++;
        }
        return written;
    }

    public override async Task<IReadOnlyDictionary<string, long>> LastNumbersAsync(CancellationToken ct)
    {
        var last = new Dictionary<string, long>();
        await using var rows = await Asking.RowsAsync(Db, "SELECT name, seq FROM sqlite_sequence", ct);
        while (await rows.Reader.ReadAsync(ct))
            last[rows.Reader.GetString(0)] = rows.Reader.GetInt64(1);
        return last;
    }

    public override async Task<long> EverGivenAsync(string table, long last, CancellationToken ct) =>
        last - await Asking.NumberAsync(Db, $"SELECT numbers FROM never_given WHERE name = '{table}'", ct);

    public override async Task NumberOnAsync(string table, long last, long everGiven, CancellationToken ct)
    {
        await DoAsync($"DELETE FROM sqlite_sequence WHERE name = '{table}'", ct);
        await DoAsync($"INSERT INTO sqlite_sequence (name, seq) VALUES ('{table}', {last})", ct);
        await DoAsync($"DELETE FROM never_given WHERE name = '{table}'", ct);
        if (last > everGiven)
            await DoAsync($"INSERT INTO never_given (name, numbers) VALUES ('{table}', {last - everGiven})", ct);
    }

    /// <summary>A file keeps anything in any column, and gives a zero where a number was asked for and a text stands.</summary>
    protected override object Value(DbDataReader reader, int column, Type kind)
    {
        var stands = reader.GetFieldType(column);
        if (stands != Stored(kind) && !(kind == typeof(double) && stands == typeof(long)))
            throw new NotMovableException($"a {stands.Name} stands where a {kind.Name} is kept");
        return kind == typeof(long) ? reader.GetInt64(column)
            : kind == typeof(string) ? reader.GetString(column)
            : kind == typeof(bool) ? reader.GetBoolean(column)
            : kind == typeof(double) ? reader.GetDouble(column)
            : kind == typeof(Guid) ? reader.GetGuid(column)
            : kind == typeof(byte[]) ? reader.GetFieldValue<byte[]>(column)
            : kind == typeof(DateOnly) ? reader.GetFieldValue<DateOnly>(column)
            : throw new NotSupportedException($"Nothing of ours is kept as {kind.Name} in a file.");
    }

    private static Type Stored(Type kind) =>
        kind == typeof(bool) ? typeof(long)
        : kind == typeof(Guid) || kind == typeof(DateOnly) ? typeof(string)
        : kind;

    public override async ValueTask DisposeAsync()
    {
        await base.DisposeAsync();
        _held?.Dispose();
    }
}
