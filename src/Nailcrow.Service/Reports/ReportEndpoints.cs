using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Tickets;
using Nailcrow.Documents.Reports;
using Nailcrow.Service.Host;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Swaps;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Reports;

internal static class ReportEndpoints
{
    public static void MapReports(this WebApplication app)
    {
        var ticket = app.MapGroup("/api/tickets/{number:long}").WithTags("Reports");
        ticket.MapGet("/report", Report).WithName("GetReport");
        ticket.MapGet("/report.pdf", Pdf).WithName("PrintReport");
        ticket.MapGet("/proposal", Proposed).WithName("GetProposal");
        ticket.MapGet("/proposal.pdf", ProposalPdf).WithName("PrintProposal");
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
        Photos photos,
        CancellationToken ct
    )
    {
        if (await journal.ReadAsync(number, ct) is not { Ticket.Report: { } report } record)
            return Refusals.NoTicket(number);
        var zone = await ZoneAsync(report.Asset, book, ct);
        using var pdf = new MemoryStream();
        var signature = record.Ticket.Signed is { } signed ? (await photos.FindAsync(number, signed.Photo, ct))?.Content : null;
        ReportPaper.Write(ServiceReport.Of(record), zone, pdf, signature);
        return TypedResults.File(pdf.ToArray(), "application/pdf", $"{TicketNumber.Text(number)} report.pdf");
    }

    internal static async Task<Results<Ok<Proposal>, ProblemHttpResult>> Proposed(
        long number,
        TicketJournal journal,
        CancellationToken ct
    ) =>
        await journal.ReadAsync(number, ct) is not { } record ? Refusals.NoTicket(number)
        : Proposal.Of(record).Is(out var proposal, out var none) ? TypedResults.Ok(proposal)
        : Refusals.Refused(none);

    internal static async Task<Results<FileContentHttpResult, ProblemHttpResult>> ProposalPdf(
        long number,
        TicketJournal journal,
        ReferenceBook book,
        CancellationToken ct
    )
    {
        if (await journal.ReadAsync(number, ct) is not { Ticket.Report: { } report } record)
            return Refusals.NoTicket(number);
        if (!Proposal.Of(record).Is(out var proposal, out var none))
            return Refusals.Refused(none);
        using var pdf = new MemoryStream();
        ProposalPaper.Write(proposal, await ZoneAsync(report.Asset, book, ct), pdf);
        return TypedResults.File(pdf.ToArray(), "application/pdf", $"{TicketNumber.Text(number)} proposal.pdf");
    }

    internal static async Task<TimeZoneInfo> ZoneAsync(string asset, ReferenceBook book, CancellationToken ct) =>
        (await book.FindAsync(asset, ct))?.Site.Zone is { } id && TimeZoneInfo.TryFindSystemTimeZoneById(id, out var known)
            ? known
            : TimeZoneInfo.Utc;
}
