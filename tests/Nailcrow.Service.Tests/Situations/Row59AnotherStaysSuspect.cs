using Nailcrow.Client;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Another drive stays suspect at the end, and the customer is advised: the report tells both, with who decided.</summary>
[Collection(Stories.Name)]
public sealed class Row59AnotherStaysSuspect(TheFirm firm)
{
    [Fact]
    public async Task The_report_tells_what_stays_to_be_done_and_who_decided()
    {
        var story = await new Story(firm).OnSiteAsync();
        story.Machine["5"] = story.Machine["5"] with { Health = DriveHealth.Worn };
        await story.LooksAsync();
        await story.StartAsync();
        await story.DoesAsync("ilka", new AdviceGiven("Exchange bay 5 before summer"));
        await story.DoesAsync("ilka", new AdviceGiven("Keep a spare drive here", "R. Alder: not this year"));
        await story.StartsAnewAsync();
        await story.ClosesAsync();

        var left = (await story.ReportSaysAsync()).Where(l => l.StartsWith("What stays to be done:", StringComparison.Ordinal)).ToList();
        left[0].ShouldContain(story.Machine.Serial("5"));
        left[1..]
            .ShouldBe([
                "What stays to be done: Advised: Exchange bay 5 before summer. Not decided yet.",
                "What stays to be done: Advised: Keep a spare drive here. Decided: R. Alder: not this year",
            ]);
    }

    [Fact]
    public async Task The_customer_has_it_on_paper_and_what_is_decided_later_stands_at_the_same_advice()
    {
        var story = await new Story(firm).OnSiteAsync();
        var ilka = await story.AsAsync("ilka");
        (await Should.ThrowAsync<ApiProblem>(() => ilka.ProposalPaperAsync(story.Ticket, Stream.Null, Ct))).Message.ShouldStartWith(
            "Nothing was advised on "
        );
        story.Machine["5"] = story.Machine["5"] with { Health = DriveHealth.Worn };
        await story.LooksAsync();
        await story.DoesAsync("ilka", new AdviceGiven("Exchange bay 5 before summer"));
        await story.DoesAsync("ilka", new AdviceGiven("Keep a spare drive here"));
        await story.StartsAnewAsync();
        ilka = await story.AsAsync("ilka");

        Undecided(await story.ViewAsync()).ShouldBe(["Exchange bay 5 before summer", "Keep a spare drive here"]);
        await story.DoesAsync("ilka", new AdviceGiven("Keep a spare drive here.", "R. Alder: yes, one"));
        Undecided(await story.ViewAsync()).ShouldBe(["Exchange bay 5 before summer"]);

        var proposal = await ilka.ProposalAsync(story.Ticket, Ct);
        proposal.Seen.ShouldHaveSingleItem().ShouldContain(story.Machine.Serial("5"));
        proposal
            .Advised.Select(a => (a.Text, a.Decision))
            .ShouldBe([("Exchange bay 5 before summer", null), ("Keep a spare drive here.", "R. Alder: yes, one")]);
        using var pdf = new MemoryStream();
        await ilka.ProposalPaperAsync(story.Ticket, pdf, Ct);
        System.Text.Encoding.ASCII.GetString(pdf.ToArray(), 0, 5).ShouldBe("%PDF-");
    }

    /// <summary>What waits for a decision is offered as something to say, with its words there already.</summary>
    private static IEnumerable<string?> Undecided(TicketView view) =>
        view.Moves.Where(m => m is { Move: Move.Advise, About: not null }).Select(m => m.About);

    private static CancellationToken Ct => TestContext.Current.CancellationToken;
}
