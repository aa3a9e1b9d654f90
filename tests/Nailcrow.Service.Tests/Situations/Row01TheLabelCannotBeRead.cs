using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The label of the drive in hand cannot be read: the machine is asked which serial is gone.</summary>
[Collection(Stories.Name)]
public sealed class Row01TheLabelCannotBeRead(TheFirm firm)
{
    private const string Unreadable = "unreadable";

    [Fact]
    public async Task If_exactly_the_right_one_is_gone_that_is_the_mark()
    {
        var story = await new Story(firm).AtAsync("serial-out");
        (await story.ViewAsync()).Run!.MayBeUnreadable.ShouldBeTrue();
        await story.AnswersAsync(Unreadable);
        (await story.ViewAsync()).Run!.Visits[^1].Said.ShouldStartWith("Take a snapshot now");

        await story.LooksAsync(); // the machine misses what is in the hand
        await story.StartsAnewAsync();
        await story.AnswersAsync(Unreadable);

        (await story.ViewAsync()).Swap.OutSerial.ShouldBe((await story.ViewAsync()).Report.Serial);
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task If_another_one_is_gone_it_is_a_wrong_drive_and_goes_straight_back()
    {
        var story = await new Story(firm).AtAsync("pull");
        await story.AnswersAsync("done");
        var wrong = story.Machine["4"];
        story.Machine.Loses("4");
        await story.LooksAsync();
        await story.StartsAnewAsync();
        await story.AnswersAsync(Unreadable);

        (await story.StepAsync()).ShouldBe("put-back");
        (await story.ViewAsync()).Swap.WrongOut.ShouldBe(wrong.Serial);
        story.Machine["4"] = wrong;
        await story.FollowAsync("as-before");
        (await story.ViewAsync()).Swap.NearMisses.ShouldHaveSingleItem().Serial.ShouldBe(wrong.Serial);
    }

    [Fact]
    public async Task If_nobody_can_say_a_lead_is_called_and_their_word_opens_the_way_or_does_not()
    {
        var story = await new Story(firm).AtAsync("pull");
        await story.AnswersAsync("done");
        var (two, four) = (story.Machine["2"], story.Machine["4"]);
        story.Machine.Loses("2");
        story.Machine.Loses("4");
        await story.LooksAsync();
        await story.AnswersAsync(Unreadable);
        (await story.StepAsync()).ShouldBe("serial-out");
        (await story.ViewAsync()).Run!.Visits[^1].Said.ShouldEndWith("nobody can say. Call a lead.");

        await story.CallsAsync(goAhead: true, "The picture shows the red mark of bay 2.", "The label is burnt.");
        await story.StartsAnewAsync();
        (await story.ViewAsync()).Run!.Heard!.Answer.ShouldBe("The picture shows the red mark of bay 2.");
        story.Machine["4"] = four;
        await story.AnswersAsync(Unreadable);

        (await story.ViewAsync()).Swap.OutSerial.ShouldBe(two.Serial);
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
