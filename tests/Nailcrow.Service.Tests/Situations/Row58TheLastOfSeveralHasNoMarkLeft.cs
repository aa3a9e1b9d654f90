using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Of several drives the last has no mark left, and a lead hands over: what is done stays done, the rest goes on on a sheet of its own.</summary>
[Collection(Stories.Name)]
public sealed class Row58TheLastOfSeveralHasNoMarkLeft(TheFirm firm)
{
    [Fact]
    public async Task Answers_of_the_first_drive_are_none_of_the_second_and_the_first_is_not_done_again()
    {
        var story = await new Story(firm).OnSiteAsync();
        await story.DoesAsync("ilka", new DrivesChosen([story.Machine.Serial("2"), story.Machine.Serial("6")]));
        await story.PartAsync();
        await story.StartAsync();
        await story.FollowAsync("mark-software.2");
        var first = (await story.ViewAsync()).EarlierSwaps.ShouldHaveSingleItem();
        (await story.ViewAsync()).Swap.BayMarks.ShouldBeEmpty();
        while (await story.StepAsync() is { } step && step != "bay-known.2")
            if (step.StartsWith("mark-", StringComparison.Ordinal))
                await story.AnswersAsync("no");
            else
                await story.DoesWhatItSaysAsync();
        await story.StartsAnewAsync();

        await story.AnswersAsync("none-left");
        await story.CallsAsync(goAhead: false, "Leave bay 6; somebody else comes for it.");
        await story.FollowAsync("handed-over");
        await story.AnswersAsync("done");

        var over = await story.ViewAsync();
        over.Run!.HandedOver.ShouldBeTrue();
        over.EarlierSwaps.ShouldHaveSingleItem().InSerial.ShouldBe(first.InSerial);
        over.Swap.PulledAt.ShouldBeNull();
    }
}
