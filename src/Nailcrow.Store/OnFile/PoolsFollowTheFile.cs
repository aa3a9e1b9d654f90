using System.Data.Common;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Nailcrow.Store.OnFile;

/// <summary>
/// Connections wait in a pool with their file open, and a file that was removed can still be written to. Whoever opens one gets the
/// file that is at the database's place now, or is told that there is none.
/// </summary>
internal sealed class PoolsFollowTheFile(DatabaseFile file) : DbConnectionInterceptor
{
    private readonly Lock _one = new();
    private FileIdentity? _last;

    public override InterceptionResult ConnectionOpening(DbConnection connection, ConnectionEventData eventData, InterceptionResult result)
    {
        Follow(connection);
        return result;
    }

    public override ValueTask<InterceptionResult> ConnectionOpeningAsync(
        DbConnection connection,
        ConnectionEventData eventData,
        InterceptionResult result,
        CancellationToken cancellationToken = default
    )
    {
        Follow(connection);
        return new(result);
    }

    // Asked of SQLite itself, which looks again after a millisecond at first; whoever asks through the library sleeps 150 ms each time.
    private const string LooksAgainSoon = "PRAGMA busy_timeout = 1000";

    public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData) => LookAgainSoon(connection);

    public override Task ConnectionOpenedAsync(
        DbConnection connection,
        ConnectionEndEventData eventData,
        CancellationToken cancellationToken = default
    )
    {
        LookAgainSoon(connection); // nothing of it is a journey
        return Task.CompletedTask;
    }

    private static void LookAgainSoon(DbConnection connection)
    {
        using var command = connection.CreateCommand();
        command.CommandText = LooksAgainSoon;
        command.ExecuteNonQuery();
    }

    private void Follow(DbConnection connection)
    {
        var now = file.Now;
        lock (_one)
        {
            if (now == _last)
                return;
            if (_last is not null && connection is SqliteConnection sqlite)
                SqliteConnection.ClearPool(sqlite);
            _last = now;
        }
    }
}
