using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Tickets;
using Nailcrow.Core;
using Nailcrow.Service.Host;
using Nailcrow.Service.People;
using Nailcrow.Service.Tickets;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Rebuilds;

internal static class RebuildsEndpoints
{
    public static void MapRebuilds(this WebApplication app) =>
        app.MapPost("/api/tickets/{number:long}/readings", TakeReading).WithTags("Rebuilds").WithName("TakeReading");

    internal static async Task<Results<Ok<Receipt>, ProblemHttpResult>> TakeReading(long number, TicketJournal journal, RebuildFollower follower, ClaimsPrincipal person, CancellationToken ct)
    {
        if (await journal.ReadAsync(number, ct) is not { } record)
            return Refusals.NoTicket(number);
        return await follower.AskAsync(record.Ticket, person.ToActor(), ct) switch
        {
            Parsed<Written>.Ok(var written) => Receipts.Answer(written),
            Parsed<Written>.Refused(var reason) => Refusals.Unreachable(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
    }
}
