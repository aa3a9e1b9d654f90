using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Tickets;
using Nailcrow.Documents.Reports;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
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

    internal static Task<Results<FileContentHttpResult, ProblemHttpResult>> Pdf(
        long number,
        TicketJournal journal,
        PaperPress press,
        CancellationToken ct
    ) => DocumentEndpoints.PrintedAsync(number, PaperKind.ServiceReport, null, journal, press, ct);

    internal static async Task<Results<Ok<Proposal>, ProblemHttpResult>> Proposed(
        long number,
        TicketJournal journal,
        CancellationToken ct
    ) =>
        await journal.ReadAsync(number, ct) is not { } record ? Refusals.NoTicket(number)
        : Proposal.Of(record).Is(out var proposal, out var none) ? TypedResults.Ok(proposal)
        : Refusals.Refused(none);

    internal static Task<Results<FileContentHttpResult, ProblemHttpResult>> ProposalPdf(
        long number,
        TicketJournal journal,
        PaperPress press,
        CancellationToken ct
    ) => DocumentEndpoints.PrintedAsync(number, PaperKind.Proposal, null, journal, press, ct);

    internal static async Task<TimeZoneInfo> ZoneAsync(string asset, ReferenceBook book, CancellationToken ct) =>
        (await book.FindAsync(asset, ct))?.Site.Zone is { } id && TimeZoneInfo.TryFindSystemTimeZoneById(id, out var known)
            ? known
            : TimeZoneInfo.Utc;
}
