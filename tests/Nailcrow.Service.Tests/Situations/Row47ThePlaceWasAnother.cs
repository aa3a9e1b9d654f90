using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>What the hand pulled was another place than the software meant: the map learns from it, and warns on the next ticket.</summary>
[Collection(Stories.Name)]
public sealed class Row47ThePlaceWasAnother(TheFirm firm)
{
    [Fact]
    public async Task The_map_says_which_drive_the_place_holds_and_the_next_pull_is_warned_of()
    {
        var story = await new Story(firm).AtAsync("pull");
        await story.AnswersAsync("done"); // the hand was in bay 2, and drew the drive that the software has in bay 4
        var four = story.Machine["4"];
        story.Machine.Loses("4");
        await story.AnswersAsync(four.Serial!);
        await story.StartsAnewAsync();
        var back = (await story.ViewAsync()).Run!.Current!;
        back.Answers.Select(a => a.Answer).ShouldBe(["bay 2", "bay 4", "not-so"]);
        await story.AnswersAsync("bay 2");
        story.Machine["4"] = four;
        await story.FollowAsync("bay-known");

        var map = await (await story.AsAsync("ilka")).BayMapAsync(story.Asset, TestContext.Current.CancellationToken);
        map.Warning.ShouldNotBeNull();
        (await story.ViewAsync()).Swap.NearMisses.ShouldHaveSingleItem().Bay.ShouldBe("2");
    }
}
