using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Every mark said yes, and the drive in hand was still the wrong one.</summary>
[Collection(Stories.Name)]
public sealed class Row05AllMarksWereWrong(TheFirm firm)
{
    [Fact]
    public async Task A_lead_counts_along_on_the_phone_and_that_is_the_new_mark_the_next_pull_goes_by()
    {
        var story = await NoMarkLeftAsync();

        await story.CallsAsync(goAhead: true, "Count aloud, I count with you.", "Every mark said bay 2.");
        await story.StartsAnewAsync();
        var heard = (await story.ViewAsync()).Run!.Heard!;
        (heard.AnsweredBy, heard.Answer).ShouldBe(("lioth", "Count aloud, I count with you."));
        await story.AnswersAsync("done");
        (await story.StepAsync()).ShouldBe("counted-together");
        await story.AnswersAsync("yes");
        (await story.ViewAsync()).Run!.Unmet.ShouldBeNull();

        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.Swap.NearMisses.Count.ShouldBe(1);
        closed.Swap.OutSerial.ShouldBe(closed.Report.Serial);
    }

    [Fact]
    public async Task An_answer_that_comes_when_the_run_has_gone_on_stands_at_the_step_it_has_come_to()
    {
        var story = await new Story(firm).AtAsync("strap");
        await story.DoesAsync("ilka", new HelpCalled("The rack has no bare metal."));
        await story.AnswersAsync("done");
        await story.StartsAnewAsync();

        await story.DoesAsync("lioth", new HelpAnswered(false, "Then touch nothing."));

        (await story.ViewAsync()).Run!.Heard!.Answer.ShouldBe("Then touch nothing.");
    }

    [Fact]
    public async Task A_lead_who_says_no_ends_the_run_with_everything_closed_and_is_not_called_again_to_hear_it()
    {
        var story = await NoMarkLeftAsync();

        await story.CallsAsync(goAhead: false, "Touch nothing more. I come myself.");
        await story.StartsAnewAsync();
        var view = await story.FollowAsync("handed-over");
        view.Run!.Visits.ShouldNotContain(v => v.Step == "pull" && v.At > view.Help!.At);
        view.Run.Unmet.ShouldBeNull();
        await story.AnswersAsync("done");

        var over = await story.ViewAsync();
        over.Run!.HandedOver.ShouldBeTrue();
        (over.Next.Who, over.Next.Move).ShouldBe(("lead", Move.StartRun));
    }

    [Fact]
    public async Task Whether_a_call_is_refused_is_not_the_engineers_to_say()
    {
        var story = await NoMarkLeftAsync();
        var run = (await story.ViewAsync()).Run!;

        run.Current!.Answers.Select(a => a.Answer).ShouldBe(["done"]);
        (await story.RefusedAsync("ilka", new StepAnswered(run.Sheet.Id, "no-mark-left", "refused"))).Sentence.ShouldStartWith(
            "Whether 'no-mark-left' is refused is the lead's to say"
        );
        (await story.RefusedAsync("ilka", new StepPassed(run.Sheet.Id, "no-mark-left"))).Sentence.ShouldBe(
            "Call for help, and say what you see."
        );
        await story.DoesAsync("ilka", new HelpCalled("All marks said bay 2."));
        (await story.RefusedAsync("ilka", new StepPassed(run.Sheet.Id, "no-mark-left"))).Sentence.ShouldStartWith("Waiting for a lead");
    }

    /// <summary>All marks named bay 2, bay 3's drive came out, went back, and the machine is as before.</summary>
    private async Task<Story> NoMarkLeftAsync()
    {
        var story = await new Story(firm).AtAsync("pull");
        await story.AnswersAsync("done");
        await story.AnswersAsync(story.Machine.Serial("3"));
        await story.AnswersAsync((await story.ViewAsync()).Run!.Current!.Answers[0].Answer);
        await story.FollowAsync("bay-known");
        await story.AnswersAsync("none-left");
        (await story.StepAsync()).ShouldBe("no-mark-left");
        return story;
    }
}
