using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People;

/// <summary>Who came in, and who changed what others may do.</summary>
internal static class SecurityLogEndpoints
{
    private const int MostAtOnce = 500;

    public static void MapSecurityLog(this RouteGroupBuilder api) =>
        api.MapGet("/security-log", List).WithName("ListSecurityLog").Takes(Permission.ReadSecurityLog);

    /// <param name="by">Only what this name did, or was typed as.</param>
    /// <param name="what">Only of this kind.</param>
    /// <param name="before">Only lines with a smaller number.</param>
    internal static async Task<Results<Ok<SecurityPage>, ProblemHttpResult>> List(
        SecurityLog log,
        CancellationToken ct,
        string? by = null,
        string? what = null,
        long? before = null,
        int limit = 100
    )
    {
        if (limit is < 1 or > MostAtOnce)
            return Refusals.Unusable($"A page has 1 to {MostAtOnce} lines; {limit} were asked for.");
        SecurityEvent? kind = null;
        if (what is not null)
        {
            if (!Words.Parse<SecurityEvent>(what, "kind of line").Is(out var read, out var whyNot))
                return Refusals.Unusable(whyNot);
            kind = read;
        }
        var lines = await log.PageAsync(before, by, kind, limit, ct);
        return TypedResults.Ok(new SecurityPage(lines, lines.Count == limit ? lines[^1].Seq : null));
    }
}
