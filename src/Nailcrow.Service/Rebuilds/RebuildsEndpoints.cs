using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Rebuilds;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Service.Tickets;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Rebuilds;

internal static class RebuildsEndpoints
{
    private const int MostOnAPage = 1_000;

    public static void MapRebuilds(this WebApplication app)
    {
        var readings = app.MapGroup("/api/tickets/{number:long}/readings").WithTags("Rebuilds");
        readings.MapPost("/", TakeReading).WithName("TakeReading");
        readings.MapGet("/", List).WithName("ListReadings");
    }

    /// <summary>Every reading there is, oldest arrival first; the ticket itself shows what a chart can.</summary>
    internal static async Task<Results<Ok<ReadingPage>, ProblemHttpResult>> List(
        long number,
        TicketJournal journal,
        CancellationToken ct,
        int after = 0,
        int limit = MostOnAPage
    )
    {
        if (await journal.ReadAsync(number, ct) is not { } record)
            return Refusals.NoTicket(number);
        var page = record.After(after).Where(e => e.Body is ReadingTaken).Take(Math.Clamp(limit, 1, MostOnAPage) + 1).ToList();
        var shown = page.Take(Math.Clamp(limit, 1, MostOnAPage)).ToList();
        return TypedResults.Ok(
            new ReadingPage(
                [.. shown.Select(e => ((ReadingTaken)e.Body).At(e.Happened))],
                page.Count > shown.Count ? (int)shown[^1].Seq : null
            )
        );
    }

    internal static Task<Results<Ok<Receipt>, ProblemHttpResult>> TakeReading(
        long number,
        TicketJournal journal,
        RebuildFollower follower,
        ClaimsPrincipal person,
        CancellationToken ct,
        Guid? id = null
    ) =>
        Asked.OnceAsync(
            journal,
            number,
            id,
            async ticket =>
                await follower.AskAsync(ticket, person.ToActor(), id, ct) switch
                {
                    Parsed<Written>.Ok(var written) => Receipts.Answer(written),
                    Parsed<Written>.Refused(var reason) => Refusals.Unreachable(reason),
                    _ => throw new System.Diagnostics.UnreachableException(),
                },
            ct
        );
}
