using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The machine is off: who decided it is on record, that it comes on again is a decision, and the time off is told apart.</summary>
[Collection(Stories.Name)]
public sealed class Row48FoundSwitchedOff(TheFirm firm)
{
    [Fact]
    public async Task It_was_switched_off_to_keep_it_safe_and_comes_on_again_on_somebodys_word()
    {
        var story = await new Story(firm).OnSiteAsync();
        await story.DoesAsync("ilka", new PowerTold(PowerChange.FoundOff, "R. Alder", "Switched off on Sunday to keep it safe."));
        var off = await story.ViewAsync();
        off.Danger.Margin.ShouldBe(1); // as of then
        off.Danger.Doubts!.ShouldContain(d => d.StartsWith("The machine is off since", StringComparison.Ordinal));
        off.Next.Move.ShouldBe(Move.TellPower);
        (await story.RefusedAsync("ilka", new PowerTold(PowerChange.SwitchedOn))).Sentence.ShouldContain("say who allowed it");
        story.Waits(TimeSpan.FromHours(5));
        await story.StartsAnewAsync();

        await story.DoesAsync("ilka", new PowerTold(PowerChange.SwitchedOn, "R. Alder"));
        (await story.ViewAsync()).Danger.Doubts!.ShouldHaveSingleItem().ShouldContain("nobody has looked since");
        await story.LooksAsync();
        (await story.ViewAsync()).Danger.Doubts.ShouldBeNull();
        await story.StartAsync();
        var closed = await story.ClosesAsync();

        closed.Exposure!.Stretches.Single(s => s.Part == ExposurePart.SwitchedOff).Lasted.ShouldStartWith("5 h");
        (await story.ReportSaysAsync()).ShouldContain(l =>
            l.StartsWith("When it was off: Found off (R. Alder): Switched off on Sunday", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task It_is_found_dark_in_the_middle_of_a_sheet_and_the_sheet_goes_on_when_it_was_looked_at_again()
    {
        var story = await new Story(firm).AtAsync("snapshot-before");
        await story.StartAsync("found-off");
        await story.FollowAsync("who");
        await story.AnswersAsync("The night watch, on Sunday");
        await story.FollowAsync("may-come-on");
        await story.StartsAnewAsync();
        await story.AnswersAsync("yes", "lioth");
        await story.FollowAsync("allowed");
        (await story.ViewAsync()).Power.ShouldHaveSingleItem().ShouldContain("The night watch, on Sunday. Off since");
        await story.AnswersAsync("R. Alder");
        await story.FollowAsync("snapshot-before");

        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.Power.ShouldHaveSingleItem().ShouldContain("switched on on the word of R. Alder");
    }

    [Fact]
    public async Task What_the_sheet_switches_off_is_told_too_and_an_answer_taken_back_was_none()
    {
        var story = await new Story(firm, "tollard-t4").OnSiteAsync();
        await story.StartAsync();
        await story.FollowAsync("power-off");
        await story.AnswersAsync(RunStep.Done);
        await story.DoesAsync("ilka", new StepTakenBack((await story.ViewAsync()).Run!.Sheet.Id, "power-off"));
        (await story.ViewAsync()).Power.ShouldBeEmpty();
        await story.StartsAnewAsync();

        var closed = await story.ClosesAsync();
        closed.Power.ShouldHaveSingleItem().ShouldStartWith("Switched off. Off from");
        closed.Exposure!.Stretches.ShouldContain(s => s.Part == ExposurePart.SwitchedOff);
    }

    [Fact]
    public async Task A_power_cut_and_a_restart_are_facts_of_the_report()
    {
        var story = await new Story(firm).OnSiteAsync();
        await story.DoesAsync("dorrik", new PowerTold(PowerChange.PowerCut, "the town's works"));
        await story.DoesAsync("dorrik", new PowerTold(PowerChange.SwitchedOn, "R. Alder"));
        await story.DoesAsync("ilka", new PowerTold(PowerChange.Restarted, Because: "By itself, after an update."));
        await story.StartsAnewAsync();
        await story.LooksAsync();
        await story.StartAsync();
        await story.ClosesAsync();

        (await story.ReportSaysAsync())
            .Where(l => l.StartsWith("When it was off: ", StringComparison.Ordinal))
            .Select(l => l.Split(["off: ", ".", " ("], StringSplitOptions.None)[1])
            .ShouldBe(["Power cut", "Restarted: By itself, after an update"]);
    }
}
