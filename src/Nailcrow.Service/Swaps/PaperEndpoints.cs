using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Reports;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Swaps;

internal static class PaperEndpoints
{
    public static void MapPaper(this WebApplication app)
    {
        app.MapGet("/api/tickets/{number:long}/sheet.pdf", Paper).WithTags("Swaps").WithName("PrintSheet");
        app.MapGet("/api/tickets/{number:long}/paper", Places).WithTags("Swaps").WithName("ShowPaperOrder");
    }

    /// <summary>The steps of the ticket's sheet as they are numbered on its paper.</summary>
    internal static async Task<Results<Ok<IReadOnlyList<PaperPlace>>, ProblemHttpResult>> Places(
        long number,
        TicketJournal journal,
        CancellationToken ct
    ) =>
        await journal.ReadAsync(number, ct) is not { Ticket: var ticket } ? Refusals.NoTicket(number)
        : ticket.Sheet is { } sheet ? TypedResults.Ok(PlainPath.OnPaper(sheet))
        : Refusals.Refused(TicketPapers.NoSheet);

    internal static Task<Results<FileContentHttpResult, ProblemHttpResult>> Paper(
        long number,
        TicketJournal journal,
        PaperPress press,
        CancellationToken ct
    ) => DocumentEndpoints.PrintedAsync(number, PaperKind.RunSheet, null, journal, press, ct);
}
