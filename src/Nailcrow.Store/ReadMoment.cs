using System.Data;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Nailcrow.Store;

/// <summary>Everything read within it is as of one moment, and nobody who writes meanwhile is held up.</summary>
internal static class ReadMoment
{
    public static async Task<IDbContextTransaction> BeginAsync(NailcrowDb db, CancellationToken ct)
    {
        await db.Database.OpenConnectionAsync(ct);
        // The usual way to begin one would take the writers' lock at once.
        if (db.Database.GetDbConnection() is SqliteConnection connection)
            return await db.Database.UseTransactionAsync(connection.BeginTransaction(deferred: true), ct)
                ?? throw new InvalidOperationException("A transaction that was just begun is none.");
        return await db.Database.BeginTransactionAsync(IsolationLevel.RepeatableRead, ct);
    }
}
