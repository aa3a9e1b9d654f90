using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Another drive fails: before the pull, with the bay empty, during the rebuild. It gets its own ticket by itself, once.</summary>
[Collection(Stories.Name)]
public sealed class Row19ASecondDriveFails(TheFirm firm)
{
    [Theory, InlineData("not-rebuilding"), InlineData("wait"), InlineData("joined")]
    public async Task It_gets_its_own_ticket_by_itself_and_the_margin_is_told_on_both(string during)
    {
        var story = await new Story(firm).AtAsync(during);

        story.Machine.Drops("5");
        await story.LooksAsync();
        await story.StartsAnewAsync();
        await story.LooksAsync("tamsel"); // twice, and by somebody else: once is enough

        var others = (await story.BesideAsync()).ToList();
        var further = others.ShouldHaveSingleItem();
        (further.Bay, further.Serial, further.Margin).ShouldBe(("5", story.Machine.Serial("5"), (await story.ViewAsync()).Danger.Margin));
        var own = await (await story.AsAsync("dorrik")).TicketAsync(further.Number, TestContext.Current.CancellationToken);
        own.Report.SeenOn.ShouldBe(story.Ticket);
        (await story.ToldAsync()).ShouldContain(s =>
            s.Contains($"{TicketNumber.Text(further.Number)} was opened: Bay 5", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task Both_are_done_one_after_the_other_the_second_on_its_own_ticket()
    {
        var story = await new Story(firm).AtAsync("joined");
        story.Machine.Finishes();
        story.Machine.Drops("5");
        await story.LooksAsync();
        var further = (await story.BesideAsync()).Single();

        var second = story.On(further.Number);
        await second.DoesAsync("dorrik", new EngineerAssigned("ilka"));
        await second.PartAsync();
        await second.DoesAsync("ilka", new Core.Swaps.ArrivedOnSite());
        await second.StartAsync();
        await story.StartsAnewAsync();
        (await second.ClosesAsync()).Stage.ShouldBe(Stage.Closed);

        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task A_drive_in_somebodys_hand_is_no_failure_on_another_ticket_of_the_machine_and_a_real_one_is_not_forgotten_meanwhile()
    {
        var story = await new Story(firm).AtAsync("joined");
        story.Machine.Finishes();
        story.Machine.Drops("5");
        await story.LooksAsync();
        var second = story.On((await story.BesideAsync()).Single().Number);
        await second.DoesAsync("dorrik", new EngineerAssigned("ilka"));
        await second.PartAsync();
        await second.DoesAsync("ilka", new Core.Swaps.ArrivedOnSite());
        await second.StartAsync();
        await second.FollowAsync("pull");
        await second.AnswersAsync("done");

        var wrong = story.Machine["3"];
        story.Machine.Loses("3"); // in ilka's hand, not read yet
        story.Machine.Drops("6"); // and this one has failed
        await story.LooksAsync("tamsel"); // on the first ticket
        (await story.BesideAsync()).ShouldHaveSingleItem().Number.ShouldBe(second.Ticket);

        await second.AnswersAsync(wrong.Serial ?? "");
        story.Machine["3"] = wrong;
        await story.StartsAnewAsync();
        await second.FollowAsync("put-back");
        await second.AnswersAsync((await second.ViewAsync()).Run!.Current!.Answers[0].Answer);
        (await story.BesideAsync()).Select(t => t.Bay).ShouldNotContain("3");
    }

    [Fact]
    public async Task What_fails_while_a_drive_is_out_unread_is_found_by_the_next_look()
    {
        var story = await new Story(firm).AtAsync("serial-out");
        story.Machine.Drops("6");
        await story.LooksAsync();
        (await story.BesideAsync()).ShouldBeEmpty();
        await story.StartsAnewAsync();

        await story.FollowAsync("wait");
        await story.LooksAsync();

        (await story.BesideAsync()).ShouldHaveSingleItem().Bay.ShouldBe("6");
    }

    [Fact]
    public async Task A_wrong_drive_in_the_hand_is_no_second_failure()
    {
        var story = await new Story(firm).AtAsync("pull");
        await story.AnswersAsync("done");
        var third = story.Machine["3"];
        story.Machine.Loses("3");
        await story.LooksAsync();
        await story.AnswersAsync(third.Serial ?? "");
        story.Machine["3"] = third;
        await story.FollowAsync("as-before");
        await story.LooksAsync();

        (await story.BesideAsync()).ShouldBeEmpty();
    }
}
