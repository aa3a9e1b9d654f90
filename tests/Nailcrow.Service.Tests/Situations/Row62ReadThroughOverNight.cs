using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>What is left is read through over night before anything is pulled: how long, what it found, who agreed to wait.</summary>
[Collection(Stories.Name)]
public sealed class Row62ReadThroughOverNight(TheFirm firm)
{
    [Fact]
    public async Task It_runs_over_night_finds_nothing_and_the_sheet_goes_on_in_the_morning()
    {
        var story = await BegunAsync();
        story.Waits(TimeSpan.FromHours(9));
        await story.StartsAnewAsync();
        await story.DoesWhatItSaysAsync(); // an hour is long over
        await story.FollowAsync("hours");
        await story.AnswersAsync("8.5 h");
        await story.AnswersAsync("0");
        (await story.FollowAsync("not-rebuilding")).Run!.Sheet.Procedure.ShouldBe("front-hot");

        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
        (await story.ToldAsync()).ShouldContain(t => t.Contains("8.5 h", StringComparison.Ordinal));
    }

    [Fact]
    public async Task It_finds_sectors_that_cannot_be_read_and_a_lead_decides_before_anything_is_pulled()
    {
        var story = await BegunAsync();
        story.Waits(TimeSpan.FromHours(9));
        await story.DoesWhatItSaysAsync();
        await story.FollowAsync("hours");
        await story.AnswersAsync("8.5 h");
        await story.AnswersAsync("14");
        await story.AnswersAsync("no");
        (await story.StepAsync()).ShouldBe("found-some");
        await story.StartsAnewAsync();
        await story.CallsAsync(goAhead: true, "There is a backup of last night; go on.");
        await story.AnswersAsync("done");

        await story.FollowAsync("not-rebuilding");
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    private async Task<Story> BegunAsync()
    {
        var story = await new Story(firm).AtAsync("not-rebuilding");
        await story.StartAsync("read-check");
        story.Forgets();
        await story.FollowAsync("wait");
        return story;
    }
}
