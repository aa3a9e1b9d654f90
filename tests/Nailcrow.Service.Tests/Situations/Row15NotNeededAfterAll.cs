using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The part was not needed: it was dropped only, was seated again and is taken back. Part and drive are both accounted for.</summary>
[Collection(Stories.Name)]
public sealed class Row15NotNeededAfterAll(TheFirm firm)
{
    [Fact]
    public async Task The_same_drive_is_seated_again_and_the_part_goes_back_to_stores()
    {
        var story = await new Story(firm).OnSiteAsync();
        story.Machine["2"] = story.Machine["2"] with { Health = Core.Appliances.DriveHealth.Good };
        await story.LooksAsync();
        await story.StartAsync("dropped-but-good");
        await story.StartsAnewAsync();

        var closed = await story.ClosesAsync();

        closed.Stage.ShouldBe(Stage.Closed);
        closed.Swap.InSerial.ShouldBe(closed.Swap.OutSerial);
        closed.Held.Single(h => h.Serial == story.Parts[0]).Holder.ShouldBe(new Holder(HolderKind.Depot, "Stores"));
        (await story.ReportSaysAsync()).ShouldContain(l => l.Contains("The same drive went back into bay 2.", StringComparison.Ordinal));
    }
}
