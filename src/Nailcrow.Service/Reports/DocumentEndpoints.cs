using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Terms;
using Nailcrow.Documents.Returns;
using Nailcrow.Service.Host;
using Nailcrow.Service.Swaps;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Swaps;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Reports;

/// <summary>Every paper of a ticket behind one door.</summary>
internal static class DocumentEndpoints
{
    public static void MapDocuments(this WebApplication app)
    {
        var documents = app.MapGroup("/api/tickets/{number:long}/documents").WithTags("Reports");
        documents.MapGet("/", All).WithName("ListDocuments");
        documents.MapGet("/{kind}", One).WithName("GetDocument");
    }

    /// <summary>What papers there are of a ticket, and why another cannot be had yet.</summary>
    internal static async Task<Results<Ok<IReadOnlyList<TicketPaper>>, ProblemHttpResult>> All(
        long number,
        TicketJournal journal,
        CancellationToken ct
    ) =>
        await journal.ReadAsync(number, ct) is { Ticket.Report: not null } record
            ? TypedResults.Ok(TicketPapers.Of(record))
            : Refusals.NoTicket(number);

    /// <summary>One of them, a PDF.</summary>
    /// <param name="kind">As the list of papers says it: return-label, packing-list, delivery-note.</param>
    /// <param name="about">Which of its kind: a serial, or whom the box goes to.</param>
    internal static async Task<Results<FileContentHttpResult, ProblemHttpResult>> One(
        long number,
        string kind,
        HttpRequest request,
        TicketJournal journal,
        ReferenceBook book,
        Photos photos,
        TimeProvider time,
        CancellationToken ct,
        string? about = null
    )
    {
        if (!Words.Parse<PaperKind>(kind, "kind of paper").Is(out var of, out var unknown))
            return Refusals.NotFound(unknown);
        switch (of)
        {
            case PaperKind.RunSheet:
                return await PaperEndpoints.Paper(number, request, journal, time, ct);
            case PaperKind.ServiceReport:
                return await ReportEndpoints.Pdf(number, journal, book, photos, ct);
            case PaperKind.Proposal:
                return await ReportEndpoints.ProposalPdf(number, journal, book, ct);
            default:
                break;
        }
        if (await journal.ReadAsync(number, ct) is not { Ticket.Report: { } report } record)
            return Refusals.NoTicket(number);
        var link = new Uri($"{request.Scheme}://{request.Host}/tickets/{number}");
        using var pdf = new MemoryStream();
        if (of == PaperKind.ReturnLabel)
        {
            if (!ReturnLabel.Of(record, about).Is(out var label, out var none))
                return Refusals.Refused(none);
            BoxLabel.Write(label, link, pdf);
        }
        else
        {
            if (!TicketPapers.Form(record, of, about).Is(out var form, out var none))
                return Refusals.Refused(none);
            FormPaper.Write(form, await ReportEndpoints.ZoneAsync(report.Asset, book, ct), link, pdf);
        }
        return TypedResults.File(pdf.ToArray(), "application/pdf", new TicketPaper(of, "", about).FileName(number));
    }
}
