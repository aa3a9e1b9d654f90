using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Tickets;
using Nailcrow.Documents.Swaps;
using Nailcrow.Service.Host;
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

    internal static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Paper(
        long number,
        HttpRequest request,
        TicketJournal journal,
        TimeProvider time,
        CancellationToken ct
    )
    {
        if (await journal.ReadAsync(number, ct) is not { Ticket: { Report: { } report } ticket })
            return Refusals.NoTicket(number);
        if (ticket.Sheet is not { } sheet)
            return Refusals.Refused(TicketPapers.NoSheet);
        var link = new Uri($"{request.Scheme}://{request.Host}/tickets/{number}/paper");
        using var pdf = new MemoryStream();
        JobSheet.Write(sheet, new(number, report.Asset, report.Site, report.Location, report.Model, link, time.GetUtcNow()), pdf);
        return TypedResults.File(pdf.ToArray(), "application/pdf", $"{TicketNumber.Text(number)}.pdf");
    }
}
