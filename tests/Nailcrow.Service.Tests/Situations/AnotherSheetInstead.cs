using Nailcrow.Client;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Any run can be left for another sheet and come back; what was done and still holds is not asked again.</summary>
[Collection(Stories.Name)]
public sealed class AnotherSheetInstead(TheFirm firm)
{
    private const string Why = "Its contacts were full of dust";

    [Fact]
    public async Task A_run_is_left_with_its_reason_and_taken_up_again_where_it_was_left()
    {
        var story = await DroppedAsync();
        await story.FollowAsync("not-fatal");
        (await OfferedAsync(story, "dropped-but-good")).WhyNot.ShouldBeNull();
        (await RefusedAsync(story, "dropped-but-good")).ShouldBe(
            "Say in a sentence why 'Hot swap in a front-loading appliance' is left for 'A drive that was dropped and is good'; "
                + "what both have and is done stays done."
        );
        await story.StartAsync("dropped-but-good", Why);
        var there = await story.FollowAsync("link"); // the first thing that only this one asks
        there.Run!.Visits.ShouldContain(v => v.Step == "strap");
        there.Run.Interrupts.ShouldBeNull();

        await story.StartsAnewAsync();
        (await OfferedAsync(story, "front-hot")).WasLeft.ShouldBeTrue();
        await story.StartAsync("front-hot", "Its link has errors");
        (await story.ViewAsync()).Run!.Current!.Id.ShouldBe("not-fatal");
        var closed = await story.ClosesAsync();
        (closed.Stage, closed.Swap.InSerial).ShouldBe((Stage.Closed, story.Parts[0]));
        closed.Discrepancies.ShouldBeEmpty();
        (await story.ToldAsync()).ShouldContain($"Went over to the run sheet A drive that was dropped and is good, bay 2: {Why}");
    }

    [Fact]
    public async Task What_was_taken_back_on_the_one_is_not_done_on_the_other()
    {
        var story = await DroppedAsync();
        await story.FollowAsync("bay-known");
        await story.StartAsync("dropped-but-good", Why);
        var there = await story.FollowAsync("bay-known");
        var last = there.Run!.Visits[^1].Step;
        await story.DoesAsync("ilka", new StepTakenBack(there.Run.Sheet.Id, last));

        await story.StartAsync("front-hot", "Its link has errors");

        var back = await story.ViewAsync();
        back.Run!.Current!.Id.ShouldBe(last);
        back.Run.Visits.ShouldNotContain(v => v.Step == last);
    }

    [Theory, InlineData("serial-out"), InlineData("wait")]
    public async Task With_the_drive_out_what_was_asked_before_the_pull_is_past(string at)
    {
        var story = await DroppedAsync();
        await story.FollowAsync(at);
        await story.LooksAsync(); // its bay is empty now
        (await OfferedAsync(story, "dropped-but-good")).WhyNot.ShouldBeNull();
        await story.StartAsync("dropped-but-good", Why);
        var there = await story.ViewAsync();
        there.Run!.Current!.Id.ShouldBe(at == "serial-out" ? "serial-out" : "contacts");
        there.Run.Visits.ShouldNotContain(v => v.Step == "link"); // nobody has looked at that, and it is not said
        there.Run.Stop.ShouldBeNull();
        await story.StartsAnewAsync();

        var closed = await story.ClosesAsync();
        (closed.Stage, closed.Swap.InSerial).ShouldBe((Stage.Closed, closed.Swap.OutSerial));
        closed.Discrepancies.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_pull_of_a_sheet_that_was_left_long_before_is_made_again()
    {
        var story = await DroppedAsync();
        await story.FollowAsync("wait");
        await story.StartAsync("dropped-but-good", Why);
        await story.FollowAsync("seen-again");
        story.Machine["2"] = story.Machine["2"] with { Role = BayRole.Dropped, Health = DriveHealth.Faulted };
        await story.LooksAsync();
        await story.StartAsync(); // its replacement goes in: the drive is in its bay, and comes out once more
        (await story.FollowAsync("pull")).Run!.Visits.ShouldNotContain(v => v.Step == "pull");

        await story.StartAsync("dropped-but-good", "Once more, in another bay");

        (await story.ViewAsync()).Run!.Visits.ShouldNotContain(v => v.Step == "pull");
    }

    [Fact]
    public async Task With_a_wrong_drive_out_that_one_goes_back_first()
    {
        var story = await DroppedAsync();
        var itsBay = story.Machine["2"];
        await story.FollowAsync("serial-out");
        story.Machine["2"] = itsBay; // the hand was at the next one
        await story.AnswersAsync(story.Machine.Serial("3"));
        (await RefusedAsync(story, "dropped-but-good", Why)).ShouldBe(
            $"{story.Machine.Serial("3")} is out, a wrong drive; it goes back first."
        );
    }

    [Fact]
    public async Task With_the_new_drive_in_the_rest_is_on_this_sheet()
    {
        var story = await DroppedAsync();
        await story.FollowAsync("started");
        (await RefusedAsync(story, "dropped-but-good", Why)).ShouldBe($"{story.Parts[0]} is in; what is left to do is on this sheet.");
        (await OfferedAsync(story)).ShouldAllBe(o => o.IsRecovery); // nothing is offered that would be refused
    }

    private async Task<Story> DroppedAsync()
    {
        var story = await new Story(firm).OnSiteAsync();
        story.Machine["2"] = story.Machine["2"] with { Health = DriveHealth.Good };
        await story.LooksAsync();
        await story.StartAsync();
        return story;
    }

    private static async Task<OtherSheet> OfferedAsync(Story story, string procedure) =>
        (await OfferedAsync(story)).Single(o => o.Procedure == procedure);

    private static async Task<IReadOnlyList<OtherSheet>> OfferedAsync(Story story) =>
        await (await story.AsAsync("ilka")).OtherSheetsAsync(story.Ticket, TestContext.Current.CancellationToken);

    private static async Task<string> RefusedAsync(Story story, string procedure, string? because = null) =>
        (await Should.ThrowAsync<ApiProblem>(() => story.StartAsync(procedure, because))).Message;
}
