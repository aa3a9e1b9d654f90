using Nailcrow.Core.Appliances;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The drive was thrown out and tests good: seated again, taken back and watched.</summary>
[Collection(Stories.Name)]
public sealed class Row16OnlyDropped(TheFirm firm)
{
    [Fact]
    public async Task It_is_taken_back_by_bay_and_serial_and_watched_until_the_array_is_whole()
    {
        var story = await GoodAsync();
        var serial = story.Machine.Serial("2");
        var take = await story.FollowAsync("take-back");
        take.Run!.Current!.Say.ShouldContain($"take bay 2, serial {serial}, back");
        await story.StartsAnewAsync();

        var watched = await story.FollowAsync("whole");
        watched.Run!.WaitsForRebuild.ShouldBeTrue();
        var closed = await story.ClosesAsync();
        closed.Swap.InSerial.ShouldBe(serial);
        closed.Held.Single(h => h.Serial == story.Parts[0]).Holder.ShouldBe(new Holder(HolderKind.Depot, "Stores"));
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task It_is_not_good_after_all_and_the_part_goes_in_on_a_sheet_for_that(bool isSeen)
    {
        var story = await GoodAsync();
        var bad = story.Machine.Serial("2");
        await story.FollowAsync("seen-again");
        if (isSeen)
            story.Machine["2"] = story.Machine["2"] with { Role = BayRole.Dropped, Health = DriveHealth.Faulted };
        else
            story.Machine.Loses("2");
        await story.LooksAsync();
        (await story.ViewAsync()).Run!.Outdated.ShouldBe(
            $"{bad} was seated again, and is not good after all. Its replacement goes in, on a sheet for that."
        );
        await story.StartsAnewAsync();

        await story.StartAsync();
        var again = await story.FollowAsync("pull");
        again.Run!.Sheet.Procedure.ShouldBe("front-hot");
        again.Run.Visits.ShouldContain(v => v.Step == "strap"); // what holds is not asked again
        var closed = await story.ClosesAsync();
        (closed.Stage, closed.Swap.OutSerial, closed.Swap.InSerial).ShouldBe((Stage.Closed, bad, story.Parts[0]));
        closed.Discrepancies.ShouldBeEmpty();
        (await story.ReportSaysAsync()).ShouldContain("What was done: The same drive went back into bay 2.");
    }

    [Fact]
    public async Task What_was_closed_after_it_was_seated_is_opened_again_for_its_replacement()
    {
        var story = await GoodAsync("brackmere-x60");
        await story.FollowAsync("seen-again");
        story.Machine.Loses("2");
        await story.LooksAsync();
        await story.StartAsync();
        var again = await story.FollowAsync("drawer-out");
        again.Run!.Visits.ShouldNotContain(v => v.Step == "drawer-out");
        (await story.FollowAsync("pull")).Run!.Current!.Id.ShouldBe("pull");
    }

    private async Task<Story> GoodAsync(string model = "brackmere-b12")
    {
        var story = await new Story(firm, model).OnSiteAsync();
        story.Machine["2"] = story.Machine["2"] with { Health = DriveHealth.Good };
        await story.LooksAsync();
        await story.StartAsync("dropped-but-good");
        return story;
    }
}
