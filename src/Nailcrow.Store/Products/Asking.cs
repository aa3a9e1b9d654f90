using System.Data.Common;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Nailcrow.Store.Products;

/// <summary>Questions in the database's own words, in whatever transaction is open.</summary>
internal static class Asking
{
    public static async Task<AskedRows> RowsAsync(NailcrowDb db, string sql, CancellationToken ct)
    {
        var ask = await CommandAsync(db, sql, ct);
        return new(ask, await ask.ExecuteReaderAsync(ct));
    }

    public static async Task<long> NumberAsync(NailcrowDb db, string sql, CancellationToken ct)
    {
        await using var ask = await CommandAsync(db, sql, ct);
        return Convert.ToInt64(await ask.ExecuteScalarAsync(ct) is { } said and not DBNull ? said : 0L, CultureInfo.InvariantCulture);
    }

    public static async Task DoAsync(NailcrowDb db, string sql, CancellationToken ct)
    {
        await using var command = await CommandAsync(db, sql, ct);
        await command.ExecuteNonQueryAsync(ct);
    }

    /// <summary>On the context's own connection, as long as its other questions may take.</summary>
    public static async Task<DbCommand> CommandAsync(NailcrowDb db, string sql, CancellationToken ct)
    {
        await db.Database.OpenConnectionAsync(ct);
        var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = sql;
        command.Transaction = db.Database.CurrentTransaction?.GetDbTransaction();
        if (db.Database.GetCommandTimeout() is { } seconds)
            command.CommandTimeout = seconds;
        return command;
    }
}

internal sealed record AskedRows(DbCommand Ask, DbDataReader Reader) : IAsyncDisposable
{
    public async ValueTask DisposeAsync()
    {
        await Reader.DisposeAsync();
        await Ask.DisposeAsync();
    }
}
