using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Service.Host;
using Nailcrow.Service.People;
using Nailcrow.Store;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Admin;

/// <summary>Care of what is kept.</summary>
internal static class AdminEndpoints
{
    public static void MapAdmin(this WebApplication app)
    {
        var admin = app.MapGroup("/api/admin").WithTags("Admin").RequireAuthorization(policy => policy.RequireRole("admin"));
        admin.MapPost("/reference", Load).WithName("LoadReference");
        admin.MapPost("/verify", Verify).WithName("Verify");
        admin.MapPost("/rebuild-projections", Rebuild).WithName("RebuildProjections");
        admin.MapGet("/backup", Backup).WithName("Backup");
    }

    internal static async Task<Results<Ok<Loaded>, ProblemHttpResult>> Load(ReferenceData data, ReferenceBook book, ClaimsPrincipal person, CancellationToken ct)
    {
        var problems = await book.LoadAsync(data, person.ToActor().Name, ct);
        return problems.Count == 0
            ? TypedResults.Ok(new Loaded(data.Models.Count, data.Sites.Count, data.Appliances.Count))
            : Refusals.Unusable($"Nothing was loaded. {string.Join(" ", problems.Take(20))}");
    }

    internal static async Task<Ok<Verified>> Verify(JournalCheck check, CancellationToken ct)
    {
        var found = await check.VerifyAsync(ct);
        return TypedResults.Ok(new Verified(found.Tickets, found.Entries, found.FirstBad));
    }

    internal static async Task<Ok<Rebuilt>> Rebuild(Projections projections, CancellationToken ct) => TypedResults.Ok(new Rebuilt(await projections.RebuildAsync(ct)));

    /// <summary>A copy as of one moment, sent as a file; the copy on our side goes when it has been sent.</summary>
    internal static async Task<FileStreamHttpResult> Backup(Database database, CancellationToken ct)
    {
        var file = Path.Combine(Path.GetTempPath(), $"nailcrow-{Guid.NewGuid():N}.db");
        await database.BackupAsync(file, ct);
        var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.Read, 1 << 16, FileOptions.DeleteOnClose | FileOptions.Asynchronous);
        return TypedResults.File(stream, "application/vnd.sqlite3", "nailcrow.db");
    }
}
