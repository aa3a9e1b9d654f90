using Nailcrow.Core.Appliances;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The machine's own old drive is seated again, and its old membership blocks it: cleared by bay and serial, then as a new one.</summary>
[Collection(Stories.Name)]
public sealed class Row51ItsOldPlaceBlocksIt(TheFirm firm)
{
    [Fact]
    public async Task It_is_neither_anothers_data_nor_a_new_drive_until_it_was_cleared_by_name()
    {
        var story = await new Story(firm).OnSiteAsync();
        var serial = story.Machine.Serial("2");
        story.Machine["2"] = story.Machine["2"] with { Health = DriveHealth.Good };
        await story.LooksAsync();
        await story.StartAsync("dropped-but-good");
        await story.FollowAsync("blocked");
        await story.AnswersAsync("yes");
        var clear = await story.ViewAsync();
        clear.Run!.Current!.Say.ShouldContain($"clear what bay 2, serial {serial}, knows of its old membership");
        await story.StartsAnewAsync();
        await story.AnswersAsync($"3 {serial}"); // another bay than its own
        (await story.StepAsync()).ShouldBe("forget");

        await story.FollowAsync("started");
        (await story.ViewAsync()).Run!.Visits.Select(v => v.Step).ShouldContain("forget");
        var closed = await story.ClosesAsync();
        closed.Swap.InSerial.ShouldBe(serial);
    }
}
