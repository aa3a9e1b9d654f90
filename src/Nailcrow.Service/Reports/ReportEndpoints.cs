using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Tickets;
using Nailcrow.Documents.Reports;
using Nailcrow.Service.Host;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Reports;

internal static class ReportEndpoints
{
    public static void MapReports(this WebApplication app)
    {
        var ticket = app.MapGroup("/api/tickets/{number:long}").WithTags("Reports");
        ticket.MapGet("/report", Report).WithName("GetReport");
        ticket.MapGet("/report.pdf", Pdf).WithName("PrintReport");
    }

    internal static async Task<Results<Ok<ServiceReport>, ProblemHttpResult>> Report(
        long number,
        TicketJournal journal,
        CancellationToken ct
    ) =>
        await journal.ReadAsync(number, ct) is { Ticket.Report: not null } record
            ? TypedResults.Ok(ServiceReport.Of(record))
            : Refusals.NoTicket(number);

    internal static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Pdf(
        long number,
        TicketJournal journal,
        ReferenceBook book,
        CancellationToken ct
    )
    {
        if (await journal.ReadAsync(number, ct) is not { Ticket.Report: { } report } record)
            return Refusals.NoTicket(number);
        var zone =
            (await book.FindAsync(report.Asset, ct))?.Site.Zone is { } id && TimeZoneInfo.TryFindSystemTimeZoneById(id, out var known)
                ? known
                : TimeZoneInfo.Utc;
        using var pdf = new MemoryStream();
        ReportPaper.Write(ServiceReport.Of(record), zone, pdf);
        return TypedResults.File(pdf.ToArray(), "application/pdf", $"{TicketNumber.Text(number)} report.pdf");
    }
}
