using Microsoft.AspNetCore.Diagnostics;
using Nailcrow.Store;

namespace Nailcrow.Service.Host.Answers;

/// <summary>
/// What keeps anything from being kept: a full disk, a file that is gone, locked or read-only. Whoever asked is told so in
/// plain words, and that nothing was written; the next call tries again by itself.
/// </summary>
internal sealed class StorageTroubles(ILogger<StorageTroubles> log) : IExceptionHandler
{
    private const int RetryAfterSeconds = 10;

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
        StorageFaults.Of(exception) is { } fault ? $"{What(fault)} Nothing was written; {Then(fault)}" : null;

    /// <summary>The same to whoever starts the service, which does not go on by itself then.</summary>
    public static string? AtTheStart(Exception exception) =>
        StorageFaults.Of(exception) is { } fault
            ? $"{What(fault)} Nothing was written; start the service again when that is mended."
            : null;

    /// <summary>Only what is wrong.</summary>
    public static string? Trouble(Exception exception) => StorageFaults.Of(exception) is { } fault ? What(fault) : null;

    private static string What(StorageFault fault) =>
        fault switch
        {
            StorageFault.Gone => "The database's file has gone from its place, or another was put there.",
            StorageFault.Full => "The disk that holds the database is full.",
            StorageFault.WriteProtected => "The database may only be read: its file, its folder or its disk is write-protected.",
            StorageFault.Held => "Another program holds the database.",
            StorageFault.CannotOpen => "The database's file cannot be opened: it, or its folder, is gone or may not be read.",
            StorageFault.DiskError => "The disk that holds the database reports an error.",
            StorageFault.Away => "The database server does not answer.",
            StorageFault.NotLetIn => "The database server does not let the service in: look at the name, the password and the database in "
                + "Nailcrow:Database, and whether that name owns the database.",
            StorageFault.ClockOff => "This node's clock is far from the database's.",
            StorageFault.NoKey => "The key for seals is protected by a certificate that this node does not have.",
            _ => "The database's file is damaged or none.",
        };

    private static string Then(StorageFault fault) =>
        fault switch
        {
            StorageFault.Gone => "it goes on by itself once the file is back.",
            StorageFault.Full => "make room, and it goes on by itself.",
            StorageFault.WriteProtected => "it goes on by itself once that is lifted.",
            StorageFault.Held => "try again, and look for what holds it where it stays so.",
            StorageFault.CannotOpen => "it goes on by itself once it is back.",
            StorageFault.Away => "it goes on by itself once it does.",
            StorageFault.NotLetIn => "it goes on by itself once it is let in.",
            StorageFault.ClockOff => "it goes on by itself once the clock is right.",
            StorageFault.NoKey => "start this node with the Nailcrow:KeysCertificate that the others have.",
            StorageFault.DiskError => "look at the disk, and at 'nailcrow admin verify' afterwards.",
            _ => "restore a backup with 'nailcrow-service restore'.",
        };
}
