using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The new drive is dead. It comes out again, another goes in, and both are accounted for.</summary>
[Collection(Stories.Name)]
public sealed class Row11DeadOnArrival(TheFirm firm)
{
    [Fact]
    public async Task A_dead_part_is_exchanged_for_another_on_the_same_visit_and_goes_back_as_such()
    {
        var story = await new Story(firm).AtAsync("new-seen");
        var dead = story.Parts[0];
        story.Machine.Loses("2"); // it sits, and the machine does not see it
        await story.LooksAsync();
        (await story.ViewAsync()).Run!.Unmet!.ShouldContain($"not {dead}");

        await story.AnswersAsync("another-part");
        await story.AnswersAsync("dead-on-arrival");
        var waits = await story.ViewAsync();
        waits.Next.Say.ShouldBe($"Reserve another replacement: {dead} was given up, dead on arrival.");
        waits.Next.Who.ShouldBe("stores");
        (await story.RefusedAsync("sefa", new PartReserved(dead, "Cindral C8", 8_000_000_000_000, "Stores"))).Sentence.ShouldBe(
            $"{dead} was given up on this ticket: dead on arrival. Take another part."
        );

        await story.StartsAnewAsync();
        var other = await story.PartAsync();
        var view = await story.FollowAsync("serial-next");
        view.Run!.Expected.ShouldBe(other);
        view.Custody.Last(c => c.Serial == dead).To.ShouldBe(new Holder(HolderKind.Engineer, "ilka"));
        view.Run.Sheet.Steps.ShouldNotContain(s => s.Say.Contains(dead, StringComparison.Ordinal));

        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.Swap.InSerial.ShouldBe(other);
        closed.Discrepancies.ShouldBeEmpty();
        closed.Returns.Single(r => r.Serial == dead).Reason.ShouldBe("dead-on-arrival");
    }

    [Fact]
    public async Task With_no_other_part_at_hand_the_bay_waits_closed_and_another_visit_goes_on_there()
    {
        var story = await new Story(firm).AtAsync("new-seen");
        story.Machine.Loses("2");
        await story.LooksAsync();
        await story.AnswersAsync("another-part");
        await story.AnswersAsync("dead-on-arrival");
        await story.DoesAsync("ilka", new PutOnHold("The next part comes on Thursday.", WaitsFor.Part));

        await story.StartsAnewAsync();
        story.Waits(TimeSpan.FromHours(20));
        await story.DoesAsync("dorrik", new HoldLifted());
        (await story.StepAsync()).ShouldBe("another-here");
        (await story.ViewAsync()).Run!.Stop.ShouldBeNull();
        await story.PartAsync();

        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task A_part_that_is_found_dead_before_the_run_gives_its_place_to_another()
    {
        var story = await new Story(firm).OnSiteAsync();
        var dead = story.Parts[0];
        await story.DoesAsync("ilka", new PartGivenUp(dead, NoReplacement.DeadOnArrival, "It rattles."));
        (await story.ViewAsync()).Next.Move.ShouldBe(Move.ReservePart);

        await story.StartsAnewAsync();
        var other = await story.PartAsync();
        await story.StartAsync();

        var closed = await story.ClosesAsync();
        closed.Swap.InSerial.ShouldBe(other);
        closed.Returns.Select(r => r.Serial).ShouldContain(dead);
    }

    [Fact]
    public async Task What_is_no_part_of_the_ticket_is_not_given_up()
    {
        var story = await new Story(firm).OnSiteAsync();

        (await story.RefusedAsync("ilka", new PartGivenUp("OTHER123", NoReplacement.TooSmall))).Sentence.ShouldBe(
            $"OTHER123 is no part of this ticket; its parts: {story.Parts[0]}."
        );
    }
}
