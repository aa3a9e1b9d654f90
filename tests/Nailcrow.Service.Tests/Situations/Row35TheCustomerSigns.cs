using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The customer signs for what was done, and for nothing that was not.</summary>
[Collection(Stories.Name)]
public sealed class Row35TheCustomerSigns(TheFirm firm)
{
    [Fact]
    public async Task A_name_that_was_put_down_before_any_work_is_kept_and_does_not_count()
    {
        var story = await new Story(firm).OnSiteAsync();
        await story.DoesAsync("ilka", new CustomerSignedOff("R. Alder"));

        await story.StartsAnewAsync();
        var early = await story.ViewAsync();
        early.SignedOffBy.ShouldBeNull();
        var open = early.Discrepancies.ShouldHaveSingleItem();
        open.Sentence.ShouldStartWith("R. Alder signed off before any work was done");

        await story.StartAsync();
        await story.FollowAsync();
        await story.DoesAsync("lioth", new DiscrepancySettled(open.Id, "She meant that we may begin."));
        (await story.RefusedAsync("ilka", new TicketClosed())).Sentence.ShouldContain("The customer has not signed off.");
        (await story.ViewAsync()).Next.Move.ShouldBe(Move.KeepDrive); // by what was agreed with them on drives

        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
