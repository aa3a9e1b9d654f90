using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Somebody wants to stop with a bay empty.</summary>
[Collection(Stories.Name)]
public sealed class Row34CancellingWithADriveOut(TheFirm firm)
{
    [Fact]
    public async Task Cancelling_is_refused_holding_is_not_and_the_run_goes_on_where_it_was()
    {
        var story = await new Story(firm).AtAsync("serial-in");

        var (status, sentence) = await story.RefusedAsync("lioth", new TicketCancelled("The customer sends us home."));
        status.ShouldBe(409);
        sentence.ShouldContain("moved");
        await story.DoesAsync("ilka", new PutOnHold("The hall is locked until seven.", WaitsFor.Access));
        await story.StartsAnewAsync();
        (await story.ViewAsync()).HoldReason.ShouldBe("The hall is locked until seven.");
        await story.DoesAsync("ilka", new HoldLifted());

        (await story.StepAsync()).ShouldBe("serial-in");
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
