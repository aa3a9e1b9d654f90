using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The array rebuilds when the engineer wants to pull. Only a lead may let that go on, and what they say opens that and no more.</summary>
[Collection(Stories.Name)]
public sealed class Row10PulledWhileItRebuilds(TheFirm firm)
{
    [Fact]
    public async Task A_lead_who_refuses_the_pull_ends_the_run_before_anything_is_touched()
    {
        var story = await RebuildingAsync();

        await story.CallsAsync(goAhead: false, "It has six hours to go. Come back tomorrow.");
        await story.AnswersAsync("done");
        await story.StartsAnewAsync();
        var view = await story.FollowAsync("handed-over");
        view.Run!.Visits.ShouldNotContain(v => v.Step == "pull");
        await story.AnswersAsync("done");

        (await story.ViewAsync()).Next.Move.ShouldBe(Move.StartRun);
        story.Machine.Says = null;
        await story.LooksAsync();
        await story.StartAsync();
        (await story.ClosesAsync()).Swap.OutSerial.ShouldNotBeNull();
    }

    [Fact]
    public async Task A_go_ahead_for_this_pull_stands_at_the_step_that_asked_with_the_leads_words()
    {
        var story = await RebuildingAsync();

        await story.CallsAsync(goAhead: true, "The customer has a copy of today. Go on.");
        (await story.ViewAsync()).Run!.Heard!.Answer.ShouldBe("The customer has a copy of today. Go on.");
        await story.AnswersAsync("done");
        await story.StartsAnewAsync();
        (await story.ViewAsync()).Run!.Heard!.GoAhead.ShouldBe(true);
        await story.FollowAsync("pull");

        (await story.ViewAsync()).Run!.Heard.ShouldBeNull(); // read, and gone on from
    }

    private async Task<Story> RebuildingAsync()
    {
        var story = await new Story(firm).AtAsync("not-rebuilding");
        story.Machine.Says = ArrayState.Rebuilding;
        await story.LooksAsync();
        await story.AnswersAsync("ask");
        (await story.StepAsync()).ShouldBe("ask-lead");
        return story;
    }
}
