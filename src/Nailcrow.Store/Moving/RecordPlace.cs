using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Nailcrow.Store.Moving;

/// <summary>Where a record is: in a file, or on a server.</summary>
/// <param name="File">A full path; null for a server.</param>
/// <param name="Server">How a PostgreSQL is reached; null for a file.</param>
public sealed record RecordPlace(string? File, string? Server)
{
    /// <param name="said">A file's path, or a server as "Host=...;Database=...".</param>
    public static RecordPlace Of(string said) =>
        said.Contains('=', StringComparison.Ordinal) ? new(null, said) : new(Path.GetFullPath(said), null);

    /// <summary>In words that may be read by anybody, the same however it was written: no password is among them.</summary>
    public override string ToString() =>
        File
        ?? (
            StoreRegistration.ProblemOf(Server ?? "") is null && new NpgsqlConnectionStringBuilder(Server) is var at
                ? $"Host={at.Host};Port={at.Port};Database={at.Database}"
                : "a server"
        );

    internal async Task<Side> OpenAsync(CancellationToken ct)
    {
        Side side = Server is null
            ? new FileSide(new(StoreRegistration.OnSqlite(new DbContextOptionsBuilder<SqliteNailcrowDb>(), File ?? "").Options), File ?? "")
            : new ServerSide(new(StoreRegistration.OnPostgres(new DbContextOptionsBuilder<PostgresNailcrowDb>(), Server).Options));
        await side.Db.Database.OpenConnectionAsync(ct);
        return side;
    }
}
