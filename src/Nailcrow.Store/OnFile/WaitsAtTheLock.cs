using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Nailcrow.Store.OnFile;

/// <summary>
/// Whoever finds the file locked looks again after a millisecond, and then less and less often: SQLite's own way of waiting
/// (sqlite.org/c3ref/busy_timeout.html). Without it the library sleeps 150 ms each time, and somebody who has it again and again is
/// hardly ever found without.
/// </summary>
internal sealed class WaitsAtTheLock : DbConnectionInterceptor
{
    public static readonly WaitsAtTheLock One = new();

    // After that the library goes on asking, as long as a command may take.
    private const string LookAgain = "PRAGMA busy_timeout = 1000";

    public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData)
    {
        using var command = connection.CreateCommand();
        command.CommandText = LookAgain;
        command.ExecuteNonQuery();
    }

    public override Task ConnectionOpenedAsync(
        DbConnection connection,
        ConnectionEndEventData eventData,
        CancellationToken cancellationToken = default
    )
    {
        ConnectionOpened(connection, eventData); // nothing of it is a journey
        return Task.CompletedTask;
    }
}
