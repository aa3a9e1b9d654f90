using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A machine without redundancy, or with too much lost: its own sheet with true steps, restored from something, confirmed by somebody.</summary>
[Collection(Stories.Name)]
public sealed class Row25NoSwapBringsItBack(TheFirm firm)
{
    [Theory]
    [InlineData("brackmere-b12")]
    [InlineData("tollard-t4")] // has to be switched off
    [InlineData("ostlane-s2")] // its drives are screwed inside
    public async Task The_drive_is_exchanged_like_any_the_array_set_up_anew_and_the_report_tells_what_it_came_back_from(string model)
    {
        var story = new Story(firm, model);
        (story.Machine.Level, story.Machine.Says) = (ArrayLevel.Raid0, ArrayState.Failed);
        await story.OnSiteAsync();
        (await story.ViewAsync()).Next.Move.ShouldBe(Move.NoSwap); // said before anybody travels
        var bad = story.Machine.Serial("2");
        await story.StartAsync();
        (await story.FollowAsync("rescue")).Run!.Sheet.Procedure.ShouldBe("too-many-lost");
        await story.AnswersAsync("no", "lioth");
        await story.FollowAsync("exchange");
        await story.AnswersAsync("yes");
        await AsksALeadAsync(story);
        await story.FollowAsync(model == "ostlane-s2" ? "unplug" : "pull");
        await story.StartsAnewAsync();
        await story.FollowAsync("restored-from");
        await story.AnswersAsync("The nightly backup of 3 March");
        story.Machine.Says = ArrayState.Whole;
        story.Machine.Finishes();
        await story.LooksAsync();
        var closed = await story.ClosesAsync();

        closed.Stage.ShouldBe(Stage.Closed);
        (closed.Swap.Bay, closed.Swap.OutSerial, closed.Swap.InSerial).ShouldBe(("2", bad, story.Parts[0]));
        closed.Swap.NearMisses.ShouldBeEmpty();
        var report = await story.ReportSaysAsync();
        report.ShouldContain(
            "How it ended: The data was restored from: The nightly backup of 3 March. The customer confirmed that it is there."
        );
        report.ShouldContain($"What was done: {bad} came out of bay 2.");
    }

    [Fact]
    public async Task With_too_many_lost_nothing_leaves_its_bay_while_somebody_may_rescue_the_data()
    {
        var story = new Story(firm);
        story.Machine.Drops("4");
        story.Machine.Drops("5");
        await story.OnSiteAsync();
        await story.StartAsync();
        await story.FollowAsync("rescue");
        await story.StartsAnewAsync();
        await story.AnswersAsync("yes", "lioth");
        await story.CallsAsync(goAhead: true, "The customer asks a rescue firm.");
        await story.AnswersAsync("done");

        var view = await story.ViewAsync();
        view.Run!.HandedOver.ShouldBeTrue();
        view.Custody.ShouldNotContain(m => m.Serial.StartsWith("OLD", StringComparison.Ordinal));
        view.Moves.ShouldContain(m => m.Move == Move.CloseOtherwise);
        await story.ReturnsAllAsync();
        await story.DoesAsync(
            "lioth",
            new Core.Tickets.Ending.TicketClosed(Core.Tickets.Ending.ClosedOtherwise.DataLost, "The customer let it go, in writing.")
        );
        (await story.ViewAsync()).Stage.ShouldBe(Stage.Closed);
    }

    /// <summary>What a pull from a lost array would do is nobody's to know but a lead's.</summary>
    private static async Task AsksALeadAsync(Story story)
    {
        await story.FollowAsync("not-fatal");
        (await story.ViewAsync()).Run!.Unmet!.ShouldContain("Only a lead may let this go on.");
        await story.AnswersAsync("ask");
        await story.CallsAsync(goAhead: true, "Nobody rescues anything from it; take it out.");
        await story.AnswersAsync("done");
    }
}
