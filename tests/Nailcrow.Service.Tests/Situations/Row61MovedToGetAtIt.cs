using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Cables and screens were moved to get at the machine: opened and put right like a cover.</summary>
[Collection(Stories.Name)]
public sealed class Row61MovedToGetAtIt(TheFirm firm)
{
    [Fact]
    public async Task The_ticket_closes_when_all_of_it_is_back()
    {
        var story = await new Story(firm).AtAsync("pull");
        await story.DoesAsync("ilka", new MovedAside("the screen's cable"));
        await story.DoesAsync("ilka", new MovedAside("The screen's cable ")); // twice is once
        await story.StartsAnewAsync();
        await story.FollowAsync();
        var open = await story.ViewAsync();
        open.Aside.ShouldHaveSingleItem();
        open.Next.ShouldBe(new("ilka", "Put back as it was, and say so: the screen's cable.", Move.PutBack));
        (await story.RefusedAsync("lioth", new TicketClosed(ClosedOtherwise.HandedOver, "It is late."))).Sentence.ShouldContain(
            "Moved aside and not back: the screen's cable."
        );

        await story.DoesAsync("ilka", new MovedAside("the screen's cable", Back: true));
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
