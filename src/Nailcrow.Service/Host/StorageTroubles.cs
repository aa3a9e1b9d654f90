using Microsoft.AspNetCore.Diagnostics;
using Microsoft.Data.Sqlite;
using Nailcrow.Store;

namespace Nailcrow.Service.Host;

/// <summary>
/// What keeps anything from being kept: a full disk, a file that is gone, locked or read-only. Whoever asked is told so in
/// plain words, and that nothing was written; the next call tries again by itself.
/// </summary>
internal sealed class StorageTroubles(ILogger<StorageTroubles> log) : IExceptionHandler
{
    private const int RetryAfterSeconds = 10;

    // Result codes of SQLite, sqlite.org/rescode.html.
    private const int Busy = 5,
        Locked = 6,
        ReadOnly = 8,
        Disk = 10,
        Corrupt = 11,
        Full = 13,
        CannotOpen = 14,
        NoDatabase = 26;

    public async ValueTask<bool> TryHandleAsync(HttpContext http, Exception exception, CancellationToken ct)
    {
        if (Sentence(exception) is not { } sentence)
            return false;
        log.LogError(exception, "Not kept: {Sentence}", sentence);
        http.Response.Headers.RetryAfter = $"{RetryAfterSeconds}";
        await TypedResults.Problem(sentence, statusCode: 503, title: "Not kept").ExecuteAsync(http);
        return true;
    }

    /// <summary>What is wrong with the storage, and what to do; null where it is something else.</summary>
    public static string? Sentence(Exception exception) =>
        exception switch
        {
            DatabaseGoneException gone => $"{gone.Message} Nothing was written; it goes on by itself once the file is back.",
            SqliteException { SqliteErrorCode: Full } =>
                "The disk that holds the database is full. Nothing was written; make room, and it goes on by itself.",
            SqliteException { SqliteErrorCode: ReadOnly } =>
                "The database may only be read: its file, its folder or its disk is write-protected. Nothing was written; it goes on by itself once that is lifted.",
            SqliteException { SqliteErrorCode: Busy or Locked } =>
                "Another program holds the database. Nothing was written; try again, and look for what holds it where it stays so.",
            SqliteException { SqliteErrorCode: CannotOpen } =>
                "The database's file cannot be opened: it, or its folder, is gone or may not be read. Nothing was written; it goes on by itself once it is back.",
            SqliteException { SqliteErrorCode: Disk } =>
                "The disk that holds the database reports an error. Nothing was written; look at the disk, and at 'nailcrow admin verify' afterwards.",
            SqliteException { SqliteErrorCode: Corrupt or NoDatabase } =>
                "The database's file is damaged or none. Nothing was written; restore a backup with 'nailcrow-service restore'.",
            { InnerException: { } inner } => Sentence(inner),
            _ => null,
        };
}
