using Nailcrow.Core.Appliances;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A person typed only what they saw: what nobody described is not missing, and not fine.</summary>
[Collection(Stories.Name)]
public sealed class Row28NothingIsKnownOfSomeBays(TheFirm firm)
{
    [Fact]
    public async Task A_pull_is_not_known_to_be_safe_and_the_gate_stays_shut_until_somebody_says_what_is_there()
    {
        var story = await new Story(firm).AtAsync("not-rebuilding");
        var all = story.Machine.Seen();
        var some = all with { Bays = [.. all.Bays.Select(b => b.Label is "5" or "6" ? new Bay(b.Label, BayRole.NotKnown) : b)] };
        await story.DoesAsync("ilka", new SnapshotTaken(some));
        await story.StartsAnewAsync();

        var view = await story.ViewAsync();
        view.Danger.Verdicts.Single(v => v.Bay == "1").Verdict.ShouldBe(Core.Appliances.Arrays.PullVerdict.NotKnown);
        (await story.BesideAsync()).ShouldBeEmpty(); // nobody failed for not having been typed

        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
