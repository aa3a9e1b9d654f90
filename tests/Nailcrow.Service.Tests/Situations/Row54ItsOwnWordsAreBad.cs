using Nailcrow.Core.Appliances;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The machine tests the new drive, and it fails: it stops like one that is dead on arrival.</summary>
[Collection(Stories.Name)]
public sealed class Row54ItsOwnWordsAreBad(TheFirm firm)
{
    [Fact]
    public async Task It_is_seen_and_has_failed_by_its_own_word_so_another_part_goes_in()
    {
        var story = await new Story(firm).AtAsync("new-seen");
        story.Machine["2"] = story.Machine["2"] with { Role = BayRole.Unclaimed, Health = DriveHealth.Faulted, Array = null };
        await story.LooksAsync();
        (await story.ViewAsync()).Run!.Unmet!.ShouldContain("by its own word it has failed");
        await story.StartsAnewAsync();

        await story.AnswersAsync("another-part");
        await story.AnswersAsync("dead-on-arrival");
        var other = await story.PartAsync();
        var closed = await story.ClosesAsync();
        closed.Swap.InSerial.ShouldBe(other);
    }

    [Fact]
    public async Task One_that_the_machine_already_fills_is_not_taken_out_as_if_it_were_none()
    {
        var story = await new Story(firm).AtAsync("new-seen");
        await story.LooksAsync(); // it is being filled
        await story.AnswersAsync("another-part");
        await story.AnswersAsync("not-taken");
        await story.PartAsync();
        await story.FollowAsync("withdraw");
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Run!.Stop!.ShouldContain($"the machine uses {story.Parts[0]} in bay 2");
        (await story.ViewAsync()).Next.ShouldBe(
            new("ilka", $"Stop, and call a lead: the machine uses {story.Parts[0]} in bay 2; this is a pull like any other.", Move.CallHelp)
        );
    }
}
