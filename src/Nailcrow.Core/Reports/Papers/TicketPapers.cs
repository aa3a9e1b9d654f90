using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Reports.Papers;

/// <summary>Every paper of a ticket: what there is, and what there is not yet and why.</summary>
public static class TicketPapers
{
    public static IReadOnlyList<TicketPaper> Of(TicketRecord record)
    {
        var ticket = record.Ticket;
        return
        [
            new(
                PaperKind.RunSheet,
                ticket.Sheet is { } sheet ? $"Run sheet: {sheet.Title}" : "Run sheet",
                NotYet: ticket.Sheet is null ? NoSheet : null
            ),
            new(PaperKind.DeliveryNote, "Delivery note", NotYet: Why(DeliveryNote.Of(record))),
            .. EachOrNone(
                ticket.Returns.Where(r => r.ArrivedAt is null).Select(r => r.Serial),
                PaperKind.ReturnLabel,
                serial => $"Label for the box with {serial}",
                "Label for a box",
                "Nothing waits to be sent back: open a return first."
            ),
            .. EachOrNone(
                PackingList.Recipients(ticket),
                PaperKind.PackingList,
                to => $"Packing list of the box to {to}",
                "Packing list",
                "Nothing waits to be sent back: open a return first."
            ),
            .. Handing.Destroyed(record).Select(s => new TicketPaper(PaperKind.Destruction, $"Certificate of destruction of {s}", s)),
            .. Handing.Kept(record).Select(s => new TicketPaper(PaperKind.Retention, $"Retention form of {s}", s)),
            new(PaperKind.ServiceReport, ticket.IsEnded ? "Service report" : "Service report so far"),
            new(PaperKind.Proposal, "What we propose", NotYet: Why(Proposal.Of(record))),
        ];
    }

    /// <summary>Why a paper cannot be had now; null where it can.</summary>
    public static string? WhyNot(TicketRecord record, PaperKind kind, string? about)
    {
        var all = Of(record).Where(p => p.Kind == kind).ToList();
        var called = Words.Of(kind).Replace('-', ' ');
        return all.Find(p => p.NotYet is not null) is { NotYet: { } no } ? no
            : all.Exists(p => p.About is null || p.About.Equals(about?.Trim(), StringComparison.OrdinalIgnoreCase)) ? null
            : all.Count == 0 ? $"There is no {called} on this ticket."
            : $"Say which {called}: {string.Join(", ", all.Select(p => p.About))}.";
    }

    /// <summary>A paper that is a form, or why it cannot be had.</summary>
    public static Parsed<Form> Form(TicketRecord record, PaperKind kind, string? about) =>
        kind switch
        {
            PaperKind.DeliveryNote => DeliveryNote.Of(record),
            PaperKind.PackingList => PackingList.Of(record, about),
            PaperKind.Destruction => Handing.Destruction(record, about),
            PaperKind.Retention => Handing.Retention(record, about),
            _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "It is no form."),
        };

    /// <summary>Why there is no run sheet on paper.</summary>
    public const string NoSheet = "There is no run sheet on this ticket yet; start one first.";

    private static IEnumerable<TicketPaper> EachOrNone(
        IEnumerable<string> all,
        PaperKind kind,
        Func<string, string> title,
        string none,
        string why
    ) => all.Select(a => new TicketPaper(kind, title(a), a)).DefaultIfEmpty(new(kind, none, NotYet: why));

    private static string? Why<T>(Parsed<T> paper) => paper is Parsed<T>.Refused no ? no.Reason : null;
}
