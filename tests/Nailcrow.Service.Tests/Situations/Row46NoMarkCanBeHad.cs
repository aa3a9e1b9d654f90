using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>No lamp, no label, no light: the bay is known some other way before anything is pulled.</summary>
[Collection(Stories.Name)]
public sealed class Row46NoMarkCanBeHad(TheFirm firm)
{
    [Fact]
    public async Task The_array_is_made_to_work_and_the_drive_that_stays_dark_is_known_by_that_and_by_count()
    {
        var story = await NothingIsSeenAsync("brackmere-b12");
        (await story.StepAsync()).ShouldBe("bay-known");
        (await story.ViewAsync()).Run!.Unmet.ShouldNotBeNull();

        await story.StartAsync("other-marks");
        story.Forgets();
        await story.FollowAsync("looks");
        await story.AnswersAsync("no"); // all are of one make
        await story.AnswersAsync("no"); // and all are warm
        await story.StartsAnewAsync();
        (await story.FollowAsync("bay-known")).Run!.Unmet.ShouldBeNull();

        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.Swap.BayMarks.Select(m => m.Mark).ShouldBe(["activity", "count"]);
    }

    [Fact]
    public async Task In_a_machine_that_is_off_drives_are_read_one_by_one_and_none_of_that_is_a_near_miss()
    {
        var story = await NothingIsSeenAsync("ostlane-s2");
        await story.StartAsync("one-by-one-off");
        story.Forgets();
        (await story.FollowAsync("found")).Run!.Current!.Say.ShouldStartWith("One drive at a time");
        await story.StartsAnewAsync();
        await story.AnswersAsync("yes");
        (await story.FollowAsync("bay-known")).Run!.Unmet.ShouldBeNull();

        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.Swap.NearMisses.ShouldBeEmpty();
        closed.Swap.BayMarks.Select(m => m.Mark).ShouldBe(["label", "count"]);
    }

    /// <summary>At the gate for which no mark of the bay was seen.</summary>
    private async Task<Story> NothingIsSeenAsync(string model)
    {
        var story = await new Story(firm, model).OnSiteAsync();
        await story.StartAsync();
        await story.FollowAsync("mark-software");
        while (await story.StepAsync() is { } step && step != "bay-known")
            if (step.StartsWith("mark-", StringComparison.Ordinal))
                await story.AnswersAsync("no");
            else
                await story.DoesWhatItSaysAsync();
        return story;
    }
}
