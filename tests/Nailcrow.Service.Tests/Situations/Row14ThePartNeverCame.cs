using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The part never arrived, or a colleague has it: custody says who, and another one goes in.</summary>
[Collection(Stories.Name)]
public sealed class Row14ThePartNeverCame(TheFirm firm)
{
    [Fact]
    public async Task What_was_reserved_and_never_came_is_nowhere_and_stores_is_asked_for_another()
    {
        var story = await new Story(firm).OnSiteAsync(issued: false);
        var never = story.Parts[0];

        await story.DoesAsync("ilka", new PartGivenUp(never, NoReplacement.NotHere, "The parcel is empty."));
        await story.StartsAnewAsync();

        var view = await story.ViewAsync();
        (view.Next.Who, view.Next.Move).ShouldBe(("stores", Move.ReservePart));
        view.Held.ShouldNotContain(h => h.Serial == never);
        await story.PartAsync();
        await story.StartAsync();
        var closed = await story.ClosesAsync();
        (closed.Stage, closed.Swap.InSerial).ShouldBe((Stage.Closed, story.Parts[1]));
    }

    [Fact]
    public async Task What_was_given_to_a_colleague_is_with_the_colleague_until_it_is_handed_on()
    {
        var story = await new Story(firm).OnSiteAsync();
        await story.DoesAsync("sefa", new PartIssued(story.Parts[0], "tamsel"));
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Held.Single(h => h.Serial == story.Parts[0]).Holder.Name.ShouldBe("tamsel");
        await story.DoesAsync("sefa", new PartIssued(story.Parts[0], "ilka"));
        await story.StartAsync();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
        (await story.ViewAsync())
            .Custody.Where(m => m.Serial == story.Parts[0])
            .Select(m => m.To.Name)
            .ShouldBe(["Stores", "ilka", "tamsel", "ilka", "2"]);
    }
}
