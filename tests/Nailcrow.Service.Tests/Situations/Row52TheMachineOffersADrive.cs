using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The machine offers a drive by itself, or asks what a new one is for: held against the one that went in, and answered by name.</summary>
[Collection(Stories.Name)]
public sealed class Row52TheMachineOffersADrive(TheFirm firm)
{
    [Fact]
    public async Task It_offers_the_one_that_went_in_and_is_told_to_repair_with_it()
    {
        var story = await AskedAsync();
        await story.AnswersAsync(story.Parts[0]);
        (await story.FollowAsync("choose")).Run!.Current!.Say.ShouldContain($"repair vault with bay 2, serial {story.Parts[0]}");
        await story.StartsAnewAsync();
        (await story.FollowAsync("started")).Run!.Sheet.Procedure.ShouldBe("front-hot");

        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task It_offers_another_drive_and_nothing_is_started_before_a_lead_has_spoken()
    {
        var story = await AskedAsync();
        await story.AnswersAsync(story.Machine.Serial("4"));
        await story.AnswersAsync("done");
        (await story.StepAsync()).ShouldBe("not-this");
        await story.StartsAnewAsync();
        await story.CallsAsync(goAhead: true, "Decline it; start the right one by hand.");
        await story.AnswersAsync("done");
        (await story.FollowAsync("started")).Run!.Sheet.Procedure.ShouldBe("front-hot");

        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    private async Task<Story> AskedAsync()
    {
        var story = await new Story(firm).AtAsync("start");
        await story.StartAsync("what-it-asks");
        story.Forgets();
        return story;
    }
}
