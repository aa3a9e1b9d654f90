using Nailcrow.Core.Appliances;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A spare steps in after the sheet was made: nobody is told to start a rebuild on an array that is whole.</summary>
[Collection(Stories.Name)]
public sealed class Row18TheSpareTakesOver(TheFirm firm)
{
    [Theory, InlineData("not-fatal"), InlineData("wait")]
    public async Task The_sheet_for_what_is_so_now_is_offered_and_what_was_done_is_not_asked_again(string during)
    {
        var story = new Story(firm);
        story.Machine.HasASpare();
        await story.AtAsync(during);
        (await story.ViewAsync()).Run!.Outdated.ShouldBeNull();

        story.Machine.SpareTakesOver();
        await story.LooksAsync();
        await story.StartsAnewAsync();
        (await story.ViewAsync()).Run!.Outdated.ShouldBe(
            "This sheet was made for something else than what is so now (Hot swap in a front-loading appliance); "
                + "'The spare has taken over' is for that."
        );
        await story.StartAsync();

        var view = await story.ViewAsync();
        view.Run!.Sheet.ComesBack.ShouldBe(ComesBack.SpareSteppedIn);
        view.Run.Current!.Id.ShouldBe(during);
        view.Run.Outdated.ShouldBeNull();
        view.Run.Stop.ShouldBeNull();
        await story.FollowAsync("spare-listed");
        story.Machine["2"] = story.Machine["2"] with { Role = BayRole.Spare, Array = null };
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
        (await story.ToldAsync()).Count(s => s.StartsWith("Run sheet made", StringComparison.Ordinal)).ShouldBe(2);
    }
}
