using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Tickets;
using Nailcrow.Documents.Reports;

namespace Nailcrow.Documents.Returns;

/// <summary>A form that goes with drives: its facts, each drive with its serial as bars, what is stated, and room to sign.</summary>
public static class FormPaper
{
    private const float NameWidth = 92;
    private const float BarsWidth = 190;
    private const float BarsHeight = 26;
    private const float CodeSide = 62;

    /// <summary>Writes a PDF of A4 pages. The same form gives the same bytes.</summary>
    /// <param name="zone">The site's zone: its people read the times.</param>
    /// <param name="link">Where the ticket is; the QR code leads there.</param>
    public static void Write(Form form, TimeZoneInfo zone, Uri link, Stream into)
    {
        using var fonts = new Type();
        var title = $"{TicketNumber.Text(form.Ticket)}  {form.Title}";
        var asOf = CustomersPaper.Clock(form.AsOf, zone);
        using var paper = new Paper(
            into,
            title,
            form.AsOf,
            (p, page) => p.Text($"{title}   page {page}   as of {asOf}, times of {zone.Id}", fonts.Small, Paper.Margin, Paper.Inner)
        );
        Codes.Qr(paper.Canvas, $"{link}", Paper.Width - Paper.Margin - CodeSide, Paper.Margin, CodeSide);
        paper.Text(title, fonts.Title, Paper.Margin, Paper.Inner - CodeSide - 12);
        paper.Y += 6;
        foreach (var fact in form.Facts)
            Fact(paper, fonts, fact, zone);
        paper.Y = Math.Max(paper.Y, paper.Page == 1 ? Paper.Margin + CodeSide : 0);
        if (form.Drives.Count > 0)
            CustomersPaper.Chapter(paper, fonts, form.Drives.Count == 1 ? "The drive" : $"{form.Drives.Count} drives and parts");
        foreach (var drive in form.Drives)
            Drive(paper, fonts, drive);
        paper.Y += 12;
        foreach (var says in form.Says)
        {
            paper.Y += 4;
            paper.Text(says, fonts.Text, Paper.Margin, Paper.Inner);
        }
        foreach (var who in form.Signs)
            Sign(paper, fonts, who);
    }

    private static void Fact(Paper paper, Type fonts, FormFact fact, TimeZoneInfo zone)
    {
        var width = Paper.Inner - NameWidth - (paper.Page == 1 ? CodeSide + 12 : 0);
        paper.Need(fonts.Text.Size * 2);
        paper.Y += 3;
        var (top, page) = (paper.Y, paper.Page);
        paper.Text(fact.Name, fonts.Small, Paper.Margin, NameWidth);
        if (page == paper.Page)
            paper.Y = top;
        var text = fact.At is { } at ? CustomersPaper.Clock(at, zone) : fact.Text;
        paper.Text(text, fonts.Text, Paper.Margin + NameWidth, width);
        if (!fact.IsCode)
            return;
        paper.Need(BarsHeight + 8);
        paper.Y += 4;
        if (Codes.Bars(paper.Canvas, text, Paper.Margin + NameWidth, paper.Y, BarsWidth, BarsHeight) > 0)
            paper.Y += BarsHeight;
    }

    private static void Drive(Paper paper, Type fonts, FormDrive drive)
    {
        var width = Paper.Inner - BarsWidth - 12;
        var says = string.Join("\n", drive.Says.Prepend(drive.What));
        var height = fonts.Say.Size * 1.3f + Paper.HeightOf(says, fonts.Text, width);
        paper.Need(Math.Max(height, BarsHeight) + 10);
        paper.Y += 6;
        var (top, page) = (paper.Y, paper.Page);
        Codes.Bars(paper.Canvas, drive.Serial, Paper.Margin + width + 12, top + 4, BarsWidth, BarsHeight);
        paper.Text(drive.Serial, fonts.Say, Paper.Margin, width);
        paper.Text(says, fonts.Text, Paper.Margin, width);
        if (page == paper.Page)
            paper.Y = Math.Max(paper.Y, top + 4 + BarsHeight);
        paper.Y += 4;
        paper.Line(Paper.Margin, paper.Y, Paper.Inner, 0.3f);
    }

    private static void Sign(Paper paper, Type fonts, string who)
    {
        const float DateWidth = 110;
        paper.Need(54);
        paper.Y += 34;
        paper.Line(Paper.Margin, paper.Y, Paper.Inner - DateWidth - 20, 0.5f);
        paper.Line(Paper.Margin + Paper.Inner - DateWidth, paper.Y, DateWidth, 0.5f);
        var top = paper.Y;
        paper.Text("Date", fonts.Small, Paper.Margin + Paper.Inner - DateWidth, DateWidth);
        paper.Y = top;
        paper.Text(who, fonts.Small, Paper.Margin, Paper.Inner - DateWidth - 20);
    }
}
