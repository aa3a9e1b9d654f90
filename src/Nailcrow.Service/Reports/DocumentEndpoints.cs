using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
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
        TicketJournal journal,
        PaperPress press,
        CancellationToken ct,
        string? about = null
    ) =>
        Words.Parse<PaperKind>(kind, "kind of paper").Is(out var of, out var unknown)
            ? await PrintedAsync(number, of, about, journal, press, ct)
            : Refusals.NotFound(unknown);

    internal static async Task<Results<FileContentHttpResult, ProblemHttpResult>> PrintedAsync(
        long number,
        PaperKind kind,
        string? about,
        TicketJournal journal,
        PaperPress press,
        CancellationToken ct
    ) =>
        await journal.ReadAsync(number, ct) is not { Ticket.Report: not null } record ? Refusals.NoTicket(number)
        : (await press.PrintAsync(record, kind, about, ct)).Is(out var paper, out var none)
            ? TypedResults.File(paper.Pdf, "application/pdf", paper.Name)
        : Refusals.Refused(none);
}
