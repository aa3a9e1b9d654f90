using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.Tickets;
using Nailcrow.Documents.Swaps;
using Nailcrow.Service.Host;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Swaps;

internal static class PaperEndpoints
{
    public static void MapPaper(this WebApplication app) =>
        app.MapGet("/api/tickets/{number:long}/sheet.pdf", Paper).WithTags("Swaps").WithName("PrintSheet");

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
            return Refusals.Refused("There is no run sheet on this ticket yet; start one first.");
        var link = new Uri($"{request.Scheme}://{request.Host}/tickets/{number}/paper");
        using var pdf = new MemoryStream();
        JobSheet.Write(sheet, new(number, report.Asset, report.Site, report.Location, report.Model, link, time.GetUtcNow()), pdf);
        return TypedResults.File(pdf.ToArray(), "application/pdf", $"{TicketNumber.Text(number)}.pdf");
    }
}
