using Nailcrow.Core.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The ticket is closed, and something comes in.</summary>
[Collection(Stories.Name)]
public sealed class Row36AfterItWasClosed(TheFirm firm)
{
    [Fact]
    public async Task What_comes_late_is_told_on_it_and_a_lead_reopens_it_or_settles_it()
    {
        var story = await new Story(firm).AtAsync("mark-software");
        await story.ClosesAsync();
        var part = story.Parts[0];

        await story.DoesAsync("ilka", new EvidenceSeen(EvidenceKind.Lamp, "porter", "The lamp of bay 2 is amber again", "2", part));
        await story.StartsAnewAsync();
        var view = await story.ViewAsync();
        (view.Next.Who, view.Next.Move).ShouldBe(("lead", Move.Settle));
        (await story.RefusedAsync("ilka", new TicketReopened("Amber again"))).Status.ShouldBe(403);
        await story.DoesAsync("lioth", new TicketReopened("The new drive's lamp is amber."));

        (await story.ViewAsync()).Stage.ShouldNotBe(Stage.Closed);
        foreach (var open in (await story.ViewAsync()).Discrepancies.Where(d => d.IsOpen))
            await story.DoesAsync("lioth", new DiscrepancySettled(open.Id, "It was the neighbour's lamp."));
        await story.DoesAsync("ilka", new TicketClosed());
        (await story.ViewAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
