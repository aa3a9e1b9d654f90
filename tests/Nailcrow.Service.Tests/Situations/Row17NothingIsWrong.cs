using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A cable, a lamp, a false alarm: the ticket ends with what was found, and without a swap.</summary>
[Collection(Stories.Name)]
public sealed class Row17NothingIsWrong(TheFirm firm)
{
    [Fact]
    public async Task Whoever_was_there_ends_it_once_the_machine_shows_that_all_is_well_and_the_part_is_back()
    {
        var story = await new Story(firm).OnSiteAsync();
        var found = new TicketClosed(ClosedOtherwise.NothingToSwap, "A cable sat loose; it sits now.");
        (await story.RefusedAsync("ilka", found)).Sentence.ShouldContain("the machine is not whole");

        story.Machine["2"] = story.Machine["3"] with { Serial = story.Machine.Serial("2") };
        await story.LooksAsync();
        await story.StartsAnewAsync();
        (await story.RefusedAsync("ilka", found)).Sentence.ShouldContain($"{story.Parts[0]} is with engineer ilka");
        await story.DoesAsync("ilka", new ReturnOpened(story.Parts[0], ReturnReason.BackToStores, new(HolderKind.Depot, "Stores")));
        await story.DoesAsync("ilka", new ReturnSent(story.Parts[0], "by hand"));
        await story.DoesAsync("sefa", new ReturnArrived(story.Parts[0], story.Parts[0]));
        (await story.ViewAsync()).Moves.Single(m => m.Move == Move.NothingToSwap).WhyNot.ShouldBeNull();
        await story.DoesAsync("ilka", found);

        (await story.ViewAsync()).Stage.ShouldBe(Stage.Closed);
        (await story.ReportSaysAsync()).ShouldContain(l => l.Contains("A cable sat loose", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Once_a_drive_was_moved_or_nobody_has_looked_it_takes_a_lead()
    {
        var story = await new Story(firm).AtAsync("wait");
        var found = new TicketClosed(ClosedOtherwise.NothingToSwap, "Nothing.");
        (await story.RefusedAsync("ilka", found)).Sentence.ShouldStartWith("A drive was moved");
        await story.StartsAnewAsync();
        (await story.RefusedAsync("lioth", found)).Sentence.ShouldContain("custody");
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
