using Nailcrow.Client.Intake;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Linking;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Several tickets of one machine, or of one fault: seen when reporting, joined or linked, never worked on twice.</summary>
[Collection(Stories.Name)]
public sealed class Row32SeveralTicketsOfOneMachine(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static async Task<Story> ReportedAgainAsync(Story story, string symptom, string? bay = null) =>
        story.On((await (await story.AsAsync("dorrik")).ReportAsync(new FaultAsk(story.Asset, symptom, Bay: bay), Ct)).Ticket);

    [Fact]
    public async Task One_fault_under_two_numbers_is_one_and_what_was_known_of_the_other_goes_over()
    {
        var story = await new Story(firm).AtAsync("mark-software");
        var again = await ReportedAgainAsync(story, "Somebody smells it", "6");
        await again.DoesAsync("dorrik", new EvidenceSeen(EvidenceKind.Lamp, "porter", "Amber since noon", "6"));
        (await again.ViewAsync()).Beside.ShouldHaveSingleItem().Number.ShouldBe(story.Ticket);
        (await again.ViewAsync()).Moves.Single(m => m.Move == Move.JoinTicket).WhyNot.ShouldBeNull();

        await again.DoesAsync("dorrik", new TicketJoined(story.Ticket));
        await story.StartsAnewAsync();

        (await again.ViewAsync()).Stage.ShouldBe(Stage.Cancelled);
        var one = await story.ViewAsync();
        one.Links.Select(l => (l.Ticket, l.How)).ShouldBe([(again.Ticket, LinkKind.JoinedBy)]);
        one.Evidence.Select(e => e.Text).ShouldContain("Amber since noon");
        one.Evidence.Select(e => e.Text).ShouldContain("Somebody smells it");
        one.Beside.ShouldBeEmpty();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task What_has_a_drive_out_is_not_joined_away_and_another_machine_is_not_the_same_fault()
    {
        var story = await new Story(firm).AtAsync("wait");
        var again = await ReportedAgainAsync(story, "Lamp", "6");
        var elsewhere = await new Story(firm).OnSiteAsync();
        (await story.RefusedAsync("dorrik", new TicketJoined(again.Ticket))).Sentence.ShouldStartWith("A drive has been moved here");
        (await again.RefusedAsync("dorrik", new TicketJoined(elsewhere.Ticket))).Sentence.ShouldContain("link them instead");
        (await again.RefusedAsync("dorrik", new TicketJoined(again.Ticket))).Sentence.ShouldContain("to itself");
        (await elsewhere.RefusedAsync("tamsel", new TicketJoined(elsewhere.Ticket + 1_000))).Sentence.ShouldContain("does not exist");
        (await elsewhere.RefusedAsync("tamsel", new TicketJoined(elsewhere.Ticket))).Status.ShouldBe(409);
        (await again.RefusedAsync("dorrik", new TicketLinked(9_999, LinkKind.After))).Sentence.ShouldBe("T-9999 does not exist.");

        await again.DoesAsync("dorrik", new TicketLinked(story.Ticket, LinkKind.After));
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Links.Select(l => l.How).ShouldBe([LinkKind.Before]);
        (await again.RefusedAsync("dorrik", new TicketLinked(story.Ticket, LinkKind.After))).Sentence.ShouldContain("on record already");
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task What_fails_again_within_days_knows_its_earlier_ticket_and_that_one_knows_it()
    {
        var story = await new Story(firm).AtAsync("mark-software");
        await story.ClosesAsync();

        var again = await ReportedAgainAsync(story, "Amber once more", "2");
        await story.StartsAnewAsync();

        (await again.ViewAsync()).Links.Select(l => (l.Ticket, l.How)).ShouldBe([(story.Ticket, LinkKind.RepeatOf)]);
        var first = await story.ViewAsync();
        first.Links.Select(l => (l.Ticket, l.How)).ShouldBe([(again.Ticket, LinkKind.RepeatedBy)]);
        (first.Stage, first.Next.Move).ShouldBe((Stage.Closed, Move.Nothing)); // told there, and nobody has to settle it
    }
}
