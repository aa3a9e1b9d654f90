using Nailcrow.Core.Appliances;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A drive that still works is to go, and another one has failed already: that one first, on its own ticket.</summary>
[Collection(Stories.Name)]
public sealed class Row21DegradedForAnotherReason(TheFirm firm)
{
    [Fact]
    public async Task The_early_swap_stops_the_other_drive_gets_its_ticket_and_both_come_to_their_end()
    {
        var story = new Story(firm);
        await story.IsKnownAsync();
        story.Machine["2"] = story.Machine["2"] with { Health = DriveHealth.Worn };
        story.Machine.Drops("5");
        await story.ReportedAsync(new(story.Asset, "It counts bad sectors", JobKind.Early, "2", story.Machine.Serial("2")));
        var found = (await story.BesideAsync()).ShouldHaveSingleItem();
        found.Symptom.ShouldContain("had failed when");
        found.Bay.ShouldBe("5");
        await story.PartAsync();
        await story.DoesAsync("ilka", new ArrivedOnSite());
        await story.StartAsync();
        await story.FollowAsync("suspects");
        await story.AnswersAsync("no"); // whoever overlooks it is stopped all the same
        await story.FollowAsync("whole-before");
        (await story.ViewAsync()).Run!.Unmet!.ShouldContain("A drive that works is not pulled from it now");
        await story.DoesAsync("ilka", new PutOnHold("Bay 5 first.", WaitsFor.Other));
        await story.StartsAnewAsync();

        var first = story.On(found.Number);
        await first.DoesAsync("dorrik", new Core.Tickets.Planning.EngineerAssigned("ilka"));
        await first.LooksAsync();
        await first.PartAsync();
        await first.DoesAsync("ilka", new ArrivedOnSite());
        await first.StartAsync();
        (await first.ClosesAsync()).Stage.ShouldBe(Stage.Closed);

        await story.DoesAsync("ilka", new HoldLifted());
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
        (await story.BesideAsync()).ShouldBeEmpty();
    }
}
