using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The light cannot be switched from here, the machine does not answer: no step waits for a machine.</summary>
[Collection(Stories.Name)]
public sealed class Row09TheMachineIsSilent(TheFirm firm)
{
    [Fact]
    public async Task Everything_is_done_at_the_machine_and_typed_by_hand()
    {
        var story = await new Story(firm).AtAsync("light-on");
        var view = await story.ViewAsync();
        view.Reachable.ShouldBeFalse();
        await story.DoesAsync("ilka", new LocatorSwitched(true)); // with the button at the machine
        await story.StartsAnewAsync();

        await story.FollowAsync("snapshot-before");
        (await story.ViewAsync()).LocatorOn.ShouldBeFalse();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
