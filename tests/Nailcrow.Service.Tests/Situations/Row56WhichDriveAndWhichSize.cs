using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Which drive, and which size? Asked before anything is broken or any bay named.</summary>
[Collection(Stories.Name)]
public sealed class Row56WhichDriveAndWhichSize(TheFirm firm)
{
    private const long TB = 1_000_000_000_000;

    [Fact]
    public async Task For_each_bay_it_says_the_smallest_size_that_gives_all_it_can_and_what_gives_nothing()
    {
        var story = new Story(firm, "tollard-t5");
        story.Machine.Level = ArrayLevel.MixedSizeOne;
        story.Machine["6"] = story.Machine["6"] with { Bytes = 12_000_138_625_024 };
        await story.IsKnownAsync();
        await story.ReportedAsync(new(story.Asset, "Which drive, and which size?", JobKind.Growth));
        await story.StartsAnewAsync();

        var bring = await (await story.AsAsync("ilka")).BringAsync(story.Ticket, TestContext.Current.CancellationToken, "1=12TB");
        var each = bring.EachBay!.ToDictionary(b => b.Bay);
        each["1"].Size.ShouldBe(12_000_138_625_024); // 16 TB gives no more beside one of 12
        each["1"].Gain.ShouldBe(12_000_138_625_024 - 8 * TB);
        each["6"].Size.ShouldBeNull();
        bring.Plan!.Gain.ShouldBe(4 * TB);

        await story.DoesAsync("lioth", new TicketCancelled("It was only asked; the customer thinks about it."));
        (await story.ViewAsync()).Stage.ShouldBe(Stage.Cancelled);
    }
}
