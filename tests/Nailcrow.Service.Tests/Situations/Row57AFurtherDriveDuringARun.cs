using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A further drive is chosen while a run is under way: before anything moved the sheet grows, after that it says what it does not cover.</summary>
[Collection(Stories.Name)]
public sealed class Row57AFurtherDriveDuringARun(TheFirm firm)
{
    [Fact]
    public async Task Before_a_drive_has_moved_the_sheet_is_made_for_both_and_what_was_done_is_not_asked_again()
    {
        var story = await new Story(firm).AtAsync("snapshot-before");
        await story.DoesAsync("ilka", new DrivesChosen([story.Machine.Serial("2"), story.Machine.Serial("6")]));
        await story.PartAsync();
        (await story.ViewAsync()).Run!.Outdated.ShouldBe(
            $"This sheet is for {story.Machine.Serial("2")}; chosen are {story.Machine.Serial("2")}, {story.Machine.Serial("6")} now."
        );
        await story.StartsAnewAsync();

        await story.StartAsync();
        story.Forgets();
        (await story.StepAsync()).ShouldBe("snapshot-before");
        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.EarlierSwaps.Count.ShouldBe(1);
    }

    [Fact]
    public async Task After_that_it_is_said_that_a_further_drive_has_its_own_ticket()
    {
        var story = await new Story(firm).AtAsync("serial-out");
        (await story.RefusedAsync("ilka", new DrivesChosen([story.Machine.Serial("3"), story.Machine.Serial("6")]))).Sentence.ShouldBe(
            "A drive has been moved already; the drives of this ticket are settled. A further one gets a ticket of its own."
        );
        await story.StartsAnewAsync();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
