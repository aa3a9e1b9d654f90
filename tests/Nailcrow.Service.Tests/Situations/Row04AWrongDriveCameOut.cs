using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A wrong drive came out, known by its serial: straight back, seen as before, and the next look goes by another mark.</summary>
[Collection(Stories.Name)]
public sealed class Row04AWrongDriveCameOut(TheFirm firm)
{
    [Fact]
    public async Task It_goes_back_where_it_was_is_a_near_miss_and_the_same_marks_do_not_lead_there_again()
    {
        var story = new Story(firm);
        await story.OnSiteAsync();
        await story.StartAsync();
        await story.FollowAsync("mark-label");
        await story.AnswersAsync("no"); // kept for later
        await story.FollowAsync("pull");
        var wrong = story.Machine["4"];
        await story.AnswersAsync("done");
        story.Machine.Loses("4");
        await story.AnswersAsync(wrong.Serial!);
        (await story.StepAsync()).ShouldBe("put-back");
        (await story.ViewAsync()).Swap.WrongOut.ShouldBe(wrong.Serial);

        await story.StartsAnewAsync();
        story.Machine["4"] = wrong;
        await story.FollowAsync("bay-known");
        var view = await story.ViewAsync();
        view.Swap.NearMisses.ShouldHaveSingleItem().Serial.ShouldBe(wrong.Serial);
        view.Run!.Unmet.ShouldBeNull(); // this time the label was read as well

        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.Swap.NearMisses.Count.ShouldBe(1);
        closed.Discrepancies.ShouldBeEmpty();
    }
}
