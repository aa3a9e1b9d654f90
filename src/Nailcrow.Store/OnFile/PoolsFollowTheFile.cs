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
