using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.People.Log;
using Nailcrow.Service.People;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store;

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
    internal static async Task<FileStreamHttpResult> Backup(BackupFile backup, CancellationToken ct, bool keys = false) =>
        TypedResults.File(await backup.MakeAsync(keys, ct), BackupFile.MediaType, "nailcrow-backup.zip");
}
