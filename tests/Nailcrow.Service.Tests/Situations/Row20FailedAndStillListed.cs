using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The machine lists a drive as a member that does not serve any more.</summary>
[Collection(Stories.Name)]
public sealed class Row20FailedAndStillListed(TheFirm firm)
{
    [Fact]
    public async Task It_does_not_count_and_another_pull_is_told_as_what_it_would_be()
    {
        var story = await new Story(firm).AtAsync("not-rebuilding");
        story.Machine["5"] = story.Machine["5"] with { Health = DriveHealth.Faulted }; // and says member all the same

        await story.LooksAsync();
        await story.StartsAnewAsync();

        var danger = (await story.ViewAsync()).Danger;
        danger.Margin.ShouldBe(0);
        danger.Verdicts.Single(v => v.Bay == "3").Verdict.ShouldBe(PullVerdict.Fatal);
        (await story.BesideAsync()).ShouldHaveSingleItem().Bay.ShouldBe("5");
    }
}
