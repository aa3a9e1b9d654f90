using System.Security.Claims;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Store.Appliances.Csv;

namespace Nailcrow.Service.Appliances;

/// <summary>Sites, appliances, drives and qualified lists, in and out as CSV.</summary>
internal static class ImportEndpoints
{
    // Ten million drives. What is longer is no list.
    private const long MostBytes = 1024L * 1024 * 1024;

    public static void MapImport(this WebApplication app)
    {
        var care = app.MapGroup("/api").WithTags("Appliances").Takes(Permission.BringListsIn);
        care.MapPost("/import/{kind}", Import).WithName("Import").Accepts<string>("text/csv");
        care.MapGet("/export/{kind}", Export)
            .WithName("Export")
            .Produces<string>(200, "text/csv")
            .Logged(SecurityEvent.ListExported, "kind");
    }

    /// <summary>
    /// Checks a file row by row, and unless it is a dry run brings the good rows in, or with <paramref name="all"/> all of them or
    /// none.
    /// </summary>
    internal static async Task<Results<Ok<ImportResult>, ProblemHttpResult>> Import(
        string kind,
        HttpContext http,
        CsvImport import,
        ClaimsPrincipal person,
        CancellationToken ct,
        bool dryRun = true,
        bool all = false
    )
    {
        if (!Words.Parse<ImportKind>(kind, "kind of file").Is(out var known, out var reason))
            return Refusals.NotFound(reason);
        if (http.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = MostBytes;
        var file = Path.Combine(Path.GetTempPath(), $"nailcrow-import-{Guid.NewGuid():N}.csv");
        try
        {
            await using (var kept = File.Create(file))
                await http.Request.Body.CopyToAsync(kept, ct);
            var done = await import.RunAsync(known, file, dryRun, all, person.ToActor().Name, ct);
            return TypedResults.Ok(
                new ImportResult(
                    Words.Of(known),
                    dryRun,
                    done.Rows,
                    done.Good,
                    done.Bad,
                    done.Written,
                    [.. done.Problems.Select(p => new RowProblem(p.Line, p.Reason))]
                )
            );
        }
        catch (CsvProblem no)
        {
            return Refusals.Unusable($"Nothing was imported. {no.Message}");
        }
        finally
        {
            File.Delete(file);
        }
    }

    internal static Results<PushStreamHttpResult, ProblemHttpResult> Export(string kind, CsvExport export, CancellationToken ct) =>
        Words.Parse<ImportKind>(kind, "kind of file").Is(out var known, out var reason)
            ? TypedResults.Stream(stream => export.WriteAsync(known, stream, ct), "text/csv", $"{Words.Of(known)}.csv")
            : Refusals.NotFound(reason);
}
