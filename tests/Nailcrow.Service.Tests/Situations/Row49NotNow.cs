using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>It may not be touched now: in use, or a window was agreed. It waits with the time, and then goes on where it was.</summary>
[Collection(Stories.Name)]
public sealed class Row49NotNow(TheFirm firm)
{
    [Fact]
    public async Task The_window_stands_in_what_is_next_and_the_run_goes_on_in_it()
    {
        var story = await new Story(firm).AtAsync("snapshot-before");
        var window = DateTimeOffset.UtcNow.AddHours(30);
        (await story.RefusedAsync("ilka", new PutOnHold("In use", Until: DateTimeOffset.UtcNow.AddDays(-3)))).Sentence.ShouldContain(
            "which is over"
        );

        await story.DoesAsync(
            "ilka",
            new PutOnHold("The tide is being measured; the customer agreed on a window.", WaitsFor.Customer, window)
        );
        await story.StartsAnewAsync();

        var waits = await story.ViewAsync();
        waits.HoldUntil!.Value.ShouldBe(window, TimeSpan.FromSeconds(1));
        (waits.Next.Move, waits.Next.Say).ShouldBe(
            (
                Move.LiftHold,
                $"On hold until {window.UtcDateTime:yyyy-MM-dd HH:mm} UTC: The tide is being measured; the customer agreed on a window. "
                    + "Lift the hold when that is over."
            )
        );
        await story.DoesAsync("ilka", new HoldLifted());
        (await story.StepAsync()).ShouldBe("snapshot-before");
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
