using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store;

/// <summary>
/// More room for pages on one connection, while it reads the whole journal ticket by ticket: a ticket's entries lie where they
/// arrived, among those of hundreds of others, and each page would otherwise be fetched once for every ticket on it.
/// </summary>
internal sealed class RoomToRead : IAsyncDisposable
{
    // sqlite.org/pragma.html#pragma_cache_size: kibibytes where negative.
    private const int Wide = -32_000,
        Usual = -2_000;

    private readonly NailcrowDb _db;

    private RoomToRead(NailcrowDb db) => _db = db;

    public static async Task<RoomToRead> TakeAsync(NailcrowDb db, CancellationToken ct)
    {
        await db.Database.OpenConnectionAsync(ct); // held: the room belongs to it
        await SetAsync(db, $"PRAGMA cache_size = {Wide}");
        return new(db);
    }

    public async ValueTask DisposeAsync() => await SetAsync(_db, $"PRAGMA cache_size = {Usual}; PRAGMA shrink_memory");

    private static async Task SetAsync(NailcrowDb db, string pragma)
    {
        if (!db.Database.IsSqlite())
            return;
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = pragma;
        await command.ExecuteNonQueryAsync();
    }
}
