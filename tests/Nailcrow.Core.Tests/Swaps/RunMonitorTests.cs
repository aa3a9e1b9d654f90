using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Guarding;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tests.Procedures;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Waiting;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Core.Tests.Swaps;

/// <summary>The rules held while a run goes on: what was proved is never stopped, and what slipped past the proof is.</summary>
public class RunMonitorTests
{
    private const int RunsOfEach = 40; // 10,000 of each were run once; see docs/performance.md
    private const int StepsAtMost = 300;

    public static TheoryData<string> All => [.. Shipped.Names];

    [Theory, MemberData(nameof(All))]
    public void Whatever_is_answered_on_a_sheet_that_was_proved_nothing_stops_it(string name)
    {
        var random = new Random(7);
        foreach (var sheet in SheetsOf(Shipped.Named(name)))
            for (var i = 0; i < RunsOfEach; i++)
                Stopped(sheet, random).ShouldBeNull();
    }

    [Theory]
    [InlineData("front-hot", "needs: not-rebuilding", "needs: snapshot-before", "nobody has seen that the array does not rebuild.")]
    [InlineData("released-first", "needs: released", "needs: snapshot-before", "nobody has seen that the array does not rebuild.")]
    [InlineData(
        "front-hot",
        "needs: pull-not-fatal",
        "needs: snapshot-before",
        "nobody has seen that the array can spare this drive, and no lead has let it go."
    )]
    [InlineData("front-hot", "    allows: pull\n", "", "nobody has seen that the array can spare this drive, and no lead has let it go.")]
    [InlineData("front-hot", "needs: bay-established", "needs: snapshot-before", "the bay is not known by two independent marks.")]
    [InlineData("inside-off", "needs: bay-established", "needs: light-off", "the bay is not known by two independent marks.")]
    [InlineData("one-more", "needs: bay-empty", "needs: snapshot-before", "no drive has come out of this bay.")]
    [InlineData("one-more", "needs: bay-established", "needs: snapshot-before", "the bay is not known by two independent marks.")]
    [InlineData("one-more", "      - use: find-machine\n", "", "the machine is not known by two independent marks.")]
    [InlineData("one-more", "needs: spare-back", "needs: seen-again", "the end was not proved: no gate 'spare-back' has opened.")]
    [InlineData("top-hot", "      - use: find-machine\n", "", "the machine is not known by two independent marks.")]
    [InlineData("front-hot", "    then: mark-software", "    then: pull", "the bay is not known by two independent marks.")]
    [InlineData(
        "front-hot",
        "    against: drive-out\n    records: pulled\n",
        "    against: chassis\n",
        "the serial of the drive that came out has not been compared."
    )]
    [InlineData(
        "inside-off",
        "    against: drive-out\n    records: pulled\n",
        "    against: chassis\n",
        "the serial of the drive that came out has not been compared."
    )]
    [InlineData(
        "front-hot",
        " and answer.no-mark-left is not refused",
        " and answer.no-mark-left is refused",
        "a wrong drive is out, and this does something else than put it back."
    )]
    [InlineData(
        "front-hot",
        "  - id: wait\n    hold: Leave the bay empty for {wait-after-pull} seconds.\n    moves: nothing\n    seconds: model.wait-after-pull\n",
        "",
        "nobody has waited since the drive came out."
    )]
    [InlineData(
        "front-hot",
        "    seconds: model.wait-after-pull\n  - id: serial-in\n",
        "    seconds: 1\n  - id: serial-in\n",
        "nobody has waited since the drive came out."
    )]
    [InlineData(
        "front-hot",
        "answers: { seat-again: again-off,",
        "answers: { seat-again: seat-again,",
        "no drive has come out of this bay."
    )]
    [InlineData(
        "front-hot",
        "    then: nothing-foreign\n",
        "    then: again\n  - id: again\n    do: Ease the replacement out of bay {bay}.\n    records: unseated\n    then: nothing-foreign\n",
        "the machine has seen the new drive and may use it; this is a pull like any other."
    )]
    [InlineData("top-hot", "    closes: the cover\n", "", "the cover is not put right.")]
    [InlineData("screen-frozen", "        closes: power\n", "", "power is not put right.")]
    [InlineData("front-hot", "needs: array-whole", "needs: rebuild-seen", "the end was not proved: no gate 'array-whole' has opened.")]
    [InlineData("front-hot", "needs: snapshot-after", "needs: array-whole", "the end was not proved: no gate 'snapshot-after' has opened.")]
    [InlineData(
        "spare-stepped-in",
        "needs: spare-back",
        "needs: new-drive-seen",
        "the end was not proved: no gate 'spare-back' has opened."
    )]
    [InlineData(
        "several",
        "          - use: may-pull\n",
        "          - id: ask-lead\n            look: Did you wait?\n            answers: { so: go on, refused: light-is-off }\n",
        "nobody has seen that the array does not rebuild."
    )]
    public void What_slipped_past_the_proof_is_stopped_before_it_is_done(string name, string was, string now, string stop)
    {
        var random = new Random(7);
        var broken = Shipped.BrokenOne(name, was, now);
        Prover.Prove(broken).Findings.ShouldNotBeEmpty();

        SheetsOf(broken).SelectMany(sheet => Enumerable.Range(0, 200).Select(_ => Stopped(sheet, random))).ShouldContain(stop);
    }

    [Fact]
    public void A_look_of_long_ago_stops_the_pull_until_there_is_a_new_one()
    {
        var played = Played.At("pull");
        RunMonitor.Stop(played.Ticket, played.Now).ShouldBeNull();

        played.Now = played.Now.AddMinutes(50);
        NextAction.Of(played.Ticket).Move.ShouldBe(Move.FollowRun); // whether a look is old depends on the hour, and a list is told at any
        RunMonitor.Stop(played.Ticket, played.Now)!.ShouldEndWith("Take a snapshot now.");

        played.Does(new SnapshotTaken(Some.Snapshot()));
        RunMonitor.Stop(played.Ticket, played.Now).ShouldBeNull();
    }

    [Fact]
    public void Where_a_run_is_stopped_the_next_thing_to_do_is_to_call()
    {
        var played = Played.At("pull");
        var sheet = played.Ticket.Sheet!; // it stands at the pull
        var unmarked = sheet with { Steps = [.. sheet.Steps.Select(s => s.Records == Records.BayMark ? s with { Records = null } : s)] };

        NextAction.Of(played.Ticket).Move.ShouldBe(Move.FollowRun);
        var next = NextAction.Of(played.Ticket with { Sheet = unmarked });

        (next.Move, next.Say).ShouldBe((Move.CallHelp, "Stop, and call a lead: the bay is not known by two independent marks."));
    }

    [Fact]
    public void A_machine_that_is_switched_off_is_not_asked_for_a_new_look()
    {
        var played = Played.At("pull");
        var off = played.Ticket.Sheet!.Steps.First(s => s.Id == "strap");
        RunSheet With(string? opens) =>
            played.Ticket.Sheet with
            {
                Steps = [.. played.Ticket.Sheet.Steps.Select(s => s == off ? s with { Opens = opens } : s)],
            };

        RunMonitor.Stop(played.Ticket with { Sheet = With(null) }, played.Now.AddHours(1)).ShouldNotBeNull();
        RunMonitor.Stop(played.Ticket with { Sheet = With("power") }, played.Now.AddHours(1)).ShouldBeNull();
    }

    [Fact]
    public void A_lead_who_is_called_at_the_stop_lets_it_go_on()
    {
        var played = Played.At("pull");
        played.Now = played.Now.AddHours(2);

        played.Does(new HelpCalled("The look is old, and the screen has frozen."));
        RunMonitor.Stop(played.Ticket, played.Now).ShouldNotBeNull();
        played.Does(new HelpAnswered(true, "Go on."), Played.Lioth);

        RunMonitor.Stop(played.Ticket, played.Now).ShouldBeNull();
    }

    private static IEnumerable<RunSheet> SheetsOf(Procedure procedure) =>
        from model in SampleModels.For(procedure, most: 4)
        from drives in new[] { 1, 2 }
        let compiled = SheetCompiler.Compile(procedure, SampleFacts.For(procedure, model, drives), Guid.Empty)
        where compiled is Parsed<RunSheet>.Ok
        select ((Parsed<RunSheet>.Ok)compiled).Value;

    /// <summary>Follows a sheet by chance, gates of marks only where the marks are there, until it ends or is stopped; what stopped it.</summary>
    private static string? Stopped(RunSheet sheet, Random random)
    {
        var run = new DryRun(sheet);
        for (var steps = 0; run.Current is not null && steps < StepsAtMost; steps++)
        {
            if (run.Stop is { } stop)
                return stop;
            var choices = run.Choices.Where(c => c != RunStep.Done || run.Unmet is null).ToList();
            if (choices.Count == 0)
                return null; // it waits for what never comes
            // Straight on more often than not: else hardly a run comes as far as a pull.
            run.Answer(run.Typed(random.Next(3) == 0 ? choices[random.Next(choices.Count)] : choices[0]));
        }
        return null;
    }
}
