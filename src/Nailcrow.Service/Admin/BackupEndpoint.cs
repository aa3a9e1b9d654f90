using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.People.Log;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store;
using Nailcrow.Store.OnFile;

namespace Nailcrow.Service.Admin;

internal static class BackupEndpoint
{
    public static void MapBackup(this RouteGroupBuilder admin) =>
        admin
            .MapGet("/backup", Backup)
            .WithName("Backup")
            .Produces<byte[]>(200, BackupFile.MediaType)
            .NotByKey()
            .Logged(SecurityEvent.BackedUp);

    /// <summary>
    /// Everything that is needed to go on elsewhere, as of one moment, in one file; the copy on our side goes when it has been
    /// sent.
    /// </summary>
    /// <param name="keys">With the service's keys as well: whoever reads such a file can act as the service.</param>
    internal static async Task<Results<FileStreamHttpResult, ProblemHttpResult>> Backup(
        BackupFile backup,
        Database database,
        CancellationToken ct,
        bool keys = false
    ) =>
        database.IsFile
            ? TypedResults.File(await backup.MakeAsync(keys, ct), BackupFile.MediaType, "nailcrow-backup.zip")
            : Refusals.Refused("The record is on PostgreSQL: its own tools back it up (pg_dump), and docs/running.md says how.");
}
