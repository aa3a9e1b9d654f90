using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
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

    [Fact]
    public async Task In_a_machine_that_runs_a_lead_allows_a_trial_pull_and_what_was_read_goes_straight_back()
    {
        var story = await NothingIsSeenAsync("brackmere-b12");
        (await story.RefusedAsync("ilka", await TrialAsync(story))).Status.ShouldBe(403);
        await story.DoesAsync("lioth", await TrialAsync(story));
        await story.FollowAsync("pull");
        var other = story.Machine["5"];
        await story.AnswersAsync("done");
        story.Machine.Loses("5");
        await story.AnswersAsync(other.Serial!); // it was another one
        await story.StartsAnewAsync();
        story.Machine["5"] = other;
        await story.FollowAsync("bay-known");

        var tried = (await story.ViewAsync()).Swap.NearMisses.ShouldHaveSingleItem();
        (tried.Bay, tried.Serial, tried.OnPurpose).ShouldBe(
            ("2", story.Machine.Serial("5"), "lioth: Take it out, read it, straight back.")
        );
        await story.DoesAsync("lioth", await TrialAsync(story));
        var closed = await story.ClosesAsync();

        closed.Stage.ShouldBe(Stage.Closed);
        closed.Swap.OutSerial.ShouldBe(closed.Report.Serial);
        (await story.ReportSaysAsync()).ShouldContain(l => l.Contains("was taken out of bay 2 on purpose, to be read"));
    }

    [Fact]
    public async Task Where_the_array_cannot_spare_every_drive_none_is_pulled_on_trial()
    {
        var story = await NothingIsSeenAsync("brackmere-b12", ArrayLevel.Raid5);
        story.ComesToToday();
        await story.LooksAsync();
        await story.DoesAsync("lioth", await TrialAsync(story));
        await story.FollowAsync("pull");

        var stop = (await story.ViewAsync()).Run!.Stop.ShouldNotBeNull();
        stop.ShouldContain("any drive may come out, and vault cannot spare bay 1");
    }

    private static async Task<StepOverruled> TrialAsync(Story story) =>
        new((await story.ViewAsync()).Run!.Sheet.Id, "bay-known", "Take it out, read it, straight back.");

    /// <summary>At the gate for which no mark of the bay was seen.</summary>
    private async Task<Story> NothingIsSeenAsync(string model, ArrayLevel level = ArrayLevel.Raid6)
    {
        var story = new Story(firm, model);
        story.Machine.Level = level;
        await story.OnSiteAsync();
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
