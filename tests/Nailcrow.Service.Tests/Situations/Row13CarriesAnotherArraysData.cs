using Nailcrow.Core.Appliances;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The new drive brings another array's data along: wiped here and on record, or given up for another.</summary>
[Collection(Stories.Name)]
public sealed class Row13CarriesAnotherArraysData(TheFirm firm)
{
    [Fact]
    public async Task It_is_cleared_by_bay_and_serial_once_a_lead_says_that_nobody_needs_it()
    {
        var story = await ForeignAsync();
        await story.StartAsync("carries-old-data");
        await story.FollowAsync("whose");
        await story.StartsAnewAsync();
        await story.AnswersAsync("no", "lioth");
        await story.AnswersAsync($"2 {story.Machine.Serial("3")}"); // the right bay, and a drive that works
        (await story.StepAsync()).ShouldBe("clear");
        await story.FollowAsync("seen");
        story.Machine.Gets("2", story.Parts[0]);
        var back = await story.FollowAsync("started");

        back.Run!.Sheet.Procedure.ShouldBe("front-hot");
        (await story.ClosesAsync()).Swap.InSerial.ShouldBe(story.Parts[0]);
        (await story.ReportSaysAsync()).ShouldContain(l => l.Contains("carries old data", StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_is_on_it_is_needed_so_it_comes_out_as_it_is_and_another_part_goes_in()
    {
        var story = await ForeignAsync();
        await story.StartAsync("carries-old-data");
        await story.FollowAsync("whose");
        await story.AnswersAsync("yes", "lioth");
        await story.CallsAsync(goAhead: true, "Another part goes in; this one goes back as it is.");
        await story.FollowAsync("nothing-foreign");
        await story.StartsAnewAsync();

        await story.AnswersAsync("another-part");
        await story.AnswersAsync("carries-old-data");
        var other = await story.PartAsync();
        story.Machine.Loses("2");
        var closed = await story.ClosesAsync();

        closed.Swap.InSerial.ShouldBe(other);
        closed.Parts.ShouldHaveSingleItem().Serial.ShouldBe(other);
        closed.Held.Single(h => h.Serial == story.Parts[0]).Holder.ShouldBe(new Holder(HolderKind.Depot, "Stores"));
    }

    private async Task<Story> ForeignAsync()
    {
        var story = await new Story(firm).AtAsync("nothing-foreign");
        story.Machine["2"] = story.Machine["2"] with { Role = BayRole.Foreign, Array = null };
        await story.LooksAsync();
        (await story.ViewAsync()).Run!.Unmet.ShouldNotBeNull();
        return story;
    }
}
