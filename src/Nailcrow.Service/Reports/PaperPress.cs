using Nailcrow.Core.Intake;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Documents.Reports;
using Nailcrow.Documents.Returns;
using Nailcrow.Documents.Swaps;
using Nailcrow.Service.Host.Wire;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Swaps;

namespace Nailcrow.Service.Reports;

/// <summary>A paper as a PDF, with the name its file has.</summary>
internal sealed record Printed(byte[] Pdf, string Name);

/// <summary>Makes every paper of a ticket: to be read and printed, or to be sent.</summary>
internal sealed class PaperPress(ReferenceBook book, Photos photos, OurAddress us, TimeProvider time)
{
    /// <param name="about">Which of its kind; null where there is one.</param>
    public async Task<Parsed<Printed>> PrintAsync(TicketRecord record, PaperKind kind, string? about, CancellationToken ct)
    {
        var (ticket, report) = (record.Ticket, record.Ticket.Report ?? FaultReported.Lost);
        var link = us.Of($"tickets/{ticket.Number}"); // papers lead back to their ticket
        using var pdf = new MemoryStream();
        switch (kind)
        {
            case PaperKind.RunSheet:
                if (ticket.Sheet is not { } sheet)
                    return No(TicketPapers.NoSheet);
                var entered = us.Of($"tickets/{ticket.Number}/paper");
                JobSheet.Write(
                    sheet,
                    new(ticket.Number, report.Asset, report.Site, report.Location, report.Model, entered, time.GetUtcNow()),
                    pdf
                );
                return Ok($"{TicketNumber.Text(ticket.Number)}.pdf");
            case PaperKind.ServiceReport:
                var signature = ticket.Signed is { } signed ? (await photos.FindAsync(ticket.Number, signed.Photo, ct))?.Content : null;
                ReportPaper.Write(ServiceReport.Of(record), await ZoneAsync(), pdf, signature);
                return Ok($"{TicketNumber.Text(ticket.Number)} report.pdf");
            case PaperKind.Proposal:
                if (!Proposal.Of(record).Is(out var proposal, out var none))
                    return No(none);
                ProposalPaper.Write(proposal, await ZoneAsync(), pdf);
                return Ok($"{TicketNumber.Text(ticket.Number)} proposal.pdf");
            case PaperKind.ReturnLabel:
                if (!ReturnLabel.Of(record, about).Is(out var label, out var noLabel))
                    return No(noLabel);
                BoxLabel.Write(label, link, pdf);
                break;
            default:
                if (!TicketPapers.Form(record, kind, about).Is(out var form, out var noForm))
                    return No(noForm);
                FormPaper.Write(form, await ZoneAsync(), link, pdf);
                break;
        }
        return Ok(new TicketPaper(kind, "", about).FileName(ticket.Number));

        Parsed<Printed> Ok(string name) => new Parsed<Printed>.Ok(new(pdf.ToArray(), name));
        Task<TimeZoneInfo> ZoneAsync() => ReportEndpoints.ZoneAsync(report.Asset, book, ct);
    }

    private static Parsed<Printed>.Refused No(string why) => new(why);
}
