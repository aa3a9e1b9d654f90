using Nailcrow.Core.Reports;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Documents.Reports;

/// <summary>A service report on paper, with a line to sign on while it is not final.</summary>
public static class ReportPaper
{
    private const float TimeWidth = 92;

    /// <summary>Writes a PDF of A4 pages. The same report gives the same bytes.</summary>
    /// <param name="zone">The site's zone: its people read the times.</param>
    /// <param name="signature">The picture of a signature, JPEG or PNG; null where nobody signed on a screen.</param>
    public static void Write(ServiceReport report, TimeZoneInfo zone, Stream into, byte[]? signature = null)
    {
        using var fonts = new Type();
        using var paper = new Paper(
            into,
            $"{TicketNumber.Text(report.Ticket)} {report.Title}",
            report.AsOf,
            (p, page) =>
                p.Text(
                    $"{TicketNumber.Text(report.Ticket)}   page {page}   as of {CustomersPaper.Clock(report.AsOf, zone)}, times of {zone.Id}",
                    fonts.Small,
                    Paper.Margin,
                    Paper.Inner
                )
        );
        CustomersPaper.Begin(paper, fonts, $"{TicketNumber.Text(report.Ticket)}  {report.Title}", report.Heading);
        foreach (var part in report.Parts)
            Part(paper, fonts, part, zone);
        if (signature is not null)
            CustomersPaper.Signed(paper, fonts, signature);
        else if (!report.IsFinal)
            CustomersPaper.SignedHere(paper, fonts);
    }

    private static void Part(Paper paper, Type fonts, ReportPart part, TimeZoneInfo zone)
    {
        CustomersPaper.Chapter(paper, fonts, part.Name);
        foreach (var line in part.Lines)
            Line(paper, fonts, line, zone);
    }

    private static void Line(Paper paper, Type fonts, ReportLine line, TimeZoneInfo zone)
    {
        var says = line.By is null ? line.Says : $"{line.Says} ({line.By})";
        paper.Need(Paper.HeightOf(says, fonts.Text, Paper.Inner - TimeWidth) + 6);
        paper.Y += 4;
        var top = paper.Y;
        if (line.At is { } at)
            paper.Text(CustomersPaper.Clock(at, zone), fonts.Small, Paper.Margin, TimeWidth);
        paper.Y = top;
        paper.Text(says, fonts.Text, Paper.Margin + TimeWidth, Paper.Inner - TimeWidth);
    }
}
