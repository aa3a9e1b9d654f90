using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A larger part goes in for a failed drive: what it gives is told before, claimed where the machine wants it, and read at the end.</summary>
[Collection(Stories.Name)]
public sealed class Row55ALargerPart(TheFirm firm)
{
    private const long TB = 1_000_000_000_000;

    [Fact]
    public async Task What_it_gives_is_told_before_claimed_and_read_at_the_end()
    {
        var story = new Story(firm, "ostlane-r16");
        story.Machine.Level = ArrayLevel.MixedSizeOne;
        story.Machine["5"] = story.Machine["5"] with { Bytes = 12 * TB }; // the first of two larger ones gave nothing
        await story.OnSiteAsync(issued: false, bytes: 12 * TB);
        (await story.ViewAsync()).Space[1].ShouldBe("Forecast: 44 TB (40.02 TiB), 4 TB (3.64 TiB) more, once the drive is exchanged.");
        await story.DoesAsync("sefa", new Core.Returns.Issuing.PartIssued(story.Parts[0], "ilka"));
        await story.DoesAsync("ilka", new ArrivedOnSite());
        await story.StartAsync();
        (await story.FollowAsync("claim")).Run!.Current!.Say.ShouldContain("grow into the new space");
        await story.StartsAnewAsync();

        await story.FollowAsync("usable");
        await story.AnswersAsync("43.5 TB");
        (await story.ClosesAsync()).Space[^1].ShouldStartWith("Seen: the screen said 43.5 TB (39.56 TiB), ilka, ");
    }

    [Fact]
    public async Task Where_it_gives_nothing_nothing_is_claimed()
    {
        var story = await new Story(firm, "ostlane-r16").OnSiteAsync(bytes: 12 * TB);
        await story.StartAsync();
        await story.StartsAnewAsync();

        (await story.FollowAsync()).Run!.Visits.ShouldNotContain(v => v.Step == "claim");
        (await story.ViewAsync()).Space.ShouldBeEmpty();
    }
}
