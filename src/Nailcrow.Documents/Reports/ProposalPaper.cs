using Nailcrow.Core.Reports;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Documents.Reports;

/// <summary>What is proposed to the customer, with room to decide on each of it and to sign.</summary>
public static class ProposalPaper
{
    private static readonly string[] Decisions = ["yes", "no", "not now"];

    /// <summary>Writes a PDF of A4 pages. The same proposal gives the same bytes.</summary>
    /// <param name="zone">The site's zone: its people read the times.</param>
    public static void Write(Proposal proposal, TimeZoneInfo zone, Stream into)
    {
        using var fonts = new Type();
        var title = $"{TicketNumber.Text(proposal.Ticket)}  What we propose";
        var asOf = CustomersPaper.Clock(proposal.AsOf, zone);
        using var paper = new Paper(
            into,
            title,
            proposal.AsOf,
            (p, page) => p.Text($"{title}   page {page}   as of {asOf}, times of {zone.Id}", fonts.Small, Paper.Margin, Paper.Inner)
        );
        CustomersPaper.Begin(paper, fonts, title, proposal.Heading);
        if (proposal.Seen.Count > 0)
            CustomersPaper.Chapter(paper, fonts, "What we saw");
        foreach (var seen in proposal.Seen)
            Sentence(paper, fonts, seen);
        CustomersPaper.Chapter(paper, fonts, "What we advise");
        foreach (var advice in proposal.Advised)
            One(paper, fonts, advice);
        CustomersPaper.SignedHere(paper, fonts);
    }

    private static void One(Paper paper, Type fonts, AdviceGiven advice)
    {
        var says = $"{advice.Text.TrimEnd('.')}.";
        // What is advised and the room to decide on it stay on one page.
        paper.Need(Paper.HeightOf(says, fonts.Text, Paper.Inner) + Paper.HeightOfBoxes(Decisions, fonts.Text, Paper.Inner) + 40);
        Sentence(paper, fonts, says);
        paper.Y += 4;
        if (advice.Decision is { } decided)
            paper.Text($"Decided: {decided}", fonts.Text, Paper.Margin, Paper.Inner);
        else
            paper.Boxes(Decisions, fonts.Text, Paper.Margin, Paper.Inner);
        paper.Y += 8;
    }

    private static void Sentence(Paper paper, Type fonts, string says)
    {
        paper.Need(Paper.HeightOf(says, fonts.Text, Paper.Inner) + 6);
        paper.Y += 4;
        paper.Text(says, fonts.Text, Paper.Margin, Paper.Inner);
    }
}
