using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Two people answer one step: the same answer counts once, another one is told to both.</summary>
[Collection(Stories.Name)]
public sealed class Row30TwoAtOneStep(TheFirm firm)
{
    [Fact]
    public async Task The_same_answer_twice_is_one_and_the_run_stands_where_it_would()
    {
        var story = await new Story(firm).AtAsync("mark-software");
        var sheet = (await story.ViewAsync()).Run!.Sheet.Id;
        await Task.WhenAll(
            story.DoesAsync("ilka", new StepAnswered(sheet, "mark-software", "yes")),
            story.DoesAsync("lioth", new StepAnswered(sheet, "mark-software", "yes"))
        );
        await story.StartsAnewAsync();

        var view = await story.ViewAsync();
        view.Run!.Visits.Count(v => v.Step == "mark-software").ShouldBe(1);
        view.Discrepancies.ShouldBeEmpty();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task Another_answer_is_kept_and_told_where_it_arises_and_a_lead_says_which_was_so()
    {
        var story = await new Story(firm).AtAsync("mark-software");
        var sheet = (await story.ViewAsync()).Run!.Sheet.Id;
        await story.AnswersAsync("yes");
        await story.DoesAsync("lioth", new StepAnswered(sheet, "mark-software", "no"));
        await story.StartsAnewAsync();

        var open = (await story.ViewAsync()).Discrepancies.ShouldHaveSingleItem();
        open.Sentence.ShouldStartWith("'mark-software' was answered 'no' by lioth while the run stood at");
        await story.DoesAsync("lioth", new Core.Tickets.Ending.DiscrepancySettled(open.Id, "I stood before the neighbour."));
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
