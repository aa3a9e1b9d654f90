using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The machine lists the drive no more: it is dead, and it is still in its bay.</summary>
[Collection(Stories.Name)]
public sealed class Row45GoneFromTheList(TheFirm firm)
{
    [Fact]
    public async Task It_is_who_was_last_seen_there_and_a_sheet_is_made_for_it_as_for_any()
    {
        var story = await new Story(firm).OnSiteAsync();
        var dead = story.Machine.Serial("2");
        story.Machine.Loses("2");
        await story.LooksAsync();
        await story.StartsAnewAsync();

        await story.StartAsync();
        var run = (await story.ViewAsync()).Run!;
        (run.Sheet.TargetBay, run.Sheet.TargetSerial).ShouldBe(("2", dead));

        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.Swap.OutSerial.ShouldBe(dead);
    }
}
