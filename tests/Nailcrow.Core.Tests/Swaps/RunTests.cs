using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Core.Tests.Swaps;

public class RunTests
{
    [Fact]
    public void A_run_that_goes_as_it_should_ends_with_both_serials_and_the_array_whole()
    {
        var played = Played.At("end");

        played.Ticket.Stage.ShouldBe(Stage.Returning);
        (played.Ticket.Swap.OutSerial, played.Ticket.Swap.InSerial, played.Ticket.Swap.Bay).ShouldBe((Some.Bad, Some.New, "2"));
        played.Ticket.Discrepancies.ShouldBeEmpty();
        ClosingCondition.Of(played.Ticket).Where(c => !c.Met).Select(c => c.Name).ShouldBe(["sign-off", "custody"]);
    }

    [Theory]
    [InlineData("snapshot-before", "There is no snapshot since you arrived; take one.")]
    [InlineData("new-seen", "There is no snapshot since the new drive went in; take one.")]
    [InlineData("started", "No rebuild onto the new drive has been seen. Look at the machine, or take a snapshot or a reading.")]
    [InlineData("joined", "C8NEWW2286 is unclaimed, not yet a member.")]
    public void A_gate_stays_shut_until_its_fact_is_there(string gate, string reason) => Played.At(gate).PassRefusal().ShouldBe(reason);

    [Fact]
    public void Nothing_is_pulled_while_the_array_rebuilds()
    {
        var played = Played.At("not-rebuilding");

        played.Does(new SnapshotTaken(Some.Snapshot(state: ArrayState.Rebuilding)));

        played.PassRefusal().ShouldBe("vault is rebuilding. Wait until it has ended, then take a snapshot again.");
    }

    [Fact]
    public void A_fatal_pull_takes_a_lead_who_overrules_in_writing_and_it_shows_for_good()
    {
        var played = Played.At("not-fatal");
        played.Does(
            new SnapshotTaken(
                Some.Snapshot(ArrayLevel.Raid5, badRole: BayRole.Member) with
                {
                    Arrays = [new("vault", ArrayLevel.Raid5, 7, ArrayState.Degraded)],
                }
            )
        );
        var sheet = played.Ticket.Sheet!.Id; // At made one

        played
            .PassRefusal()
            .ShouldBe("Pulling bay 2 is fatal: vault cannot lose this member: its data would be lost. Only a lead may let this go on.");
        played.Refusal(new StepOverruled(sheet, "not-fatal", "Backup is good")).ShouldBe("ilka may not do this; it takes the role lead.");
        played.Refusal(new StepOverruled(sheet, "not-fatal", " "), Played.Lioth).ShouldBe("Overruling takes a reason in writing.");
        played.Does(new StepOverruled(sheet, "not-fatal", "Backup is good"), Played.Lioth);

        var visit = played.Ticket.Run!.Visits[^1];
        (visit.Step, visit.Overruled, visit.By, visit.Said).ShouldBe(("not-fatal", true, "lioth", "Backup is good"));
    }

    [Fact]
    public void One_mark_is_not_enough_for_a_bay()
    {
        var played = Played.At("mark-software");

        foreach (var answer in new[] { "yes", "no", "no", "no" })
            played.Answers(answer);

        played.PassRefusal().ShouldBe("The bay is known by 'software' only; two independent marks have to agree.");
    }

    [Fact]
    public void A_wrong_drive_leads_straight_back_and_only_another_mark_leads_on()
    {
        var played = Played.At("mark-software");
        foreach (var answer in new[] { "yes", "yes", "no", "no" })
            played.Answers(answer);
        played.Passes();
        played.Answers("done");

        played.Answers("P8GOOD0003");
        played.Step?.Id.ShouldBe("put-back");
        played
            .Ticket.Run!.Visits[^1]
            .Said.ShouldBe($"P8GOOD0003 was read; {Some.Bad} was expected. That is the drive of bay 3, member of vault.");
        // The hand slipped to 3, or the names are off and it was at 2: only the hand knows.
        Stepping.Bay(played.Ticket, played.Ticket.Sheet!, played.Step!).ShouldBeNull();
        TicketView
            .Of(played.Record, new(), Played.Ilka, played.Now)
            .Run!.Current!.Answers.Select(a => a.Answer)
            .ShouldBe(["bay 2", "bay 3", "not-so"]);
        played
            .Refusal(new StepAnswered(played.Ticket.Sheet!.Id, "put-back", "bay 44"))
            .ShouldStartWith("'bay 44' is no answer to 'put-back'");

        played.Answers("bay 2");
        played.PassRefusal().ShouldBe("There is no snapshot since the drive went back; take one.");
        played.Does(new SnapshotTaken(Some.Snapshot()));
        played.Passes();
        foreach (var answer in new[] { "yes", "yes", "no", "no" })
            played.Answers(answer);
        played.PassRefusal().ShouldBe("The same marks (software, bay lamp) led to the wrong drive; find another one, or call for help.");

        played.Answers("look-again");
        foreach (var answer in new[] { "yes", "no" })
            played.Answers(answer);
        played.Passes();
        played.Ticket.Swap.NearMisses.Select(m => (m.Bay, m.Serial)).ShouldBe([("2", "P8GOOD0003")]);
        var learnt = BayMap.Learnt(played.Ticket).ShouldHaveSingleItem();
        (learnt.Bay, learnt.How).ShouldBe(("2", "wrong-pull"));
        BayMap.WarningOf("2", [learnt])!.ShouldStartWith("On T-1001 a hand at bay 2 drew the drive that the software calls ");
        BayMap.Warning([learnt, learnt with { How = "light", At = learnt.At.AddHours(1) }]).ShouldBeNull();
    }

    [Theory, InlineData("bay 3", "3", 0), InlineData("3", "3", 0), InlineData("2", "2", 1), InlineData("done", "2", 1)]
    public void Where_the_hand_was_is_said_and_the_map_learns_only_from_names_that_are_off(string answer, string bay, int learnt)
    {
        var played = Played.At("serial-out");
        played.Answers("P8GOOD0003");

        played.Answers(answer);

        played.Ticket.Swap.NearMisses.ShouldHaveSingleItem().Bay.ShouldBe(bay);
        BayMap.Learnt(played.Ticket).Count().ShouldBe(learnt);
    }

    [Theory, InlineData("0517"), InlineData("PBBADDO517")]
    public void A_serial_read_in_part_or_misread_asks_again_and_moves_nothing(string read)
    {
        var played = Played.At("serial-out");

        played.Answers(read);

        played.Step?.Id.ShouldBe("serial-out");
        played.Ticket.Swap.HasBegun.ShouldBeFalse();
    }

    [Fact]
    public void The_bay_stays_empty_for_as_long_as_the_model_wants()
    {
        var played = Played.At("wait");
        played.Now = played.Ticket.Run!.Since;

        played.PassRefusal().ShouldBe("Wait 5 s more.");

        played.Now = played.Ticket.Run!.Since.AddSeconds(5);
        played.PassRefusal().ShouldBe("accepted");
    }

    [Theory]
    [InlineData(2, false, "what was under way for two seconds was let pass by the service's clock")]
    [InlineData(60, true, "what lay on a phone for a minute was passed too early there")]
    public void A_wait_is_judged_by_the_clock_that_let_it_pass(int secondsUnderWay, bool tooEarly, string because)
    {
        var played = Played.At("wait");
        var almost = played.Ticket.Run!.Since.AddSeconds(4);
        played.Now = almost.AddSeconds(secondsUnderWay - 60); // it is a minute on when something arrives

        played.Arrives(new StepPassed(played.Ticket.Sheet!.Id, "wait"), at: almost);

        played
            .Ticket.Discrepancies.Select(d => d.Sentence)
            .ShouldBe(tooEarly ? ["'wait' was passed by ilka, but at that time: Wait 1 s more."] : [], because);
        played.Step?.Id.ShouldNotBe("wait");
    }

    [Fact]
    public void Two_people_who_give_the_same_answer_give_it_once_and_another_answer_is_questioned()
    {
        var played = Played.At("mark-lamp");
        var sheet = played.Ticket.Sheet!.Id;

        played.Arrives(new StepAnswered(sheet, "mark-software", "yes"), Played.Tamsel);
        played.Ticket.Discrepancies.ShouldBeEmpty();

        played.Arrives(new StepAnswered(sheet, "mark-software", "no"), Played.Tamsel);
        played
            .Ticket.Discrepancies.Select(d => d.Sentence)
            .ShouldBe(["'mark-software' was answered 'no' by tamsel while the run stood at 'mark-lamp'."]);
        played.Step?.Id.ShouldBe("mark-lamp");
    }

    [Fact]
    public void A_drive_already_known_from_another_place_is_a_discrepancy()
    {
        var played = Played.At("new-seen");

        played.Does(new SerialKnownElsewhere(Some.New, "in bay 4 of FSC-9"), Core.People.Actor.Service);

        played.Ticket.Discrepancies.Count.ShouldBe(1);
    }

    [Theory]
    [InlineData("Nobody is there", "accepted")]
    [InlineData("", "'backup-detail' needs an answer.")]
    public void An_answer_has_something_in_it(string answer, string expected)
    {
        var played = Played.At("backup-detail");

        played.Refusal(new StepAnswered(played.Ticket.Sheet!.Id, "backup-detail", answer)).ShouldBe(expected);
    }

    [Fact]
    public void An_answer_that_is_none_of_a_steps_is_refused_with_those_that_are()
    {
        var played = Played.At("backup");

        played
            .Refusal(new StepAnswered(played.Ticket.Sheet!.Id, "backup", "maybe"))
            .ShouldBe("'maybe' is no answer to 'backup'; accepted: yes, no, unknown.");
    }

    [Fact]
    public void An_answer_from_an_older_sheet_is_kept_and_questioned()
    {
        var played = Played.At("backup");

        played.Does(new StepAnswered(Guid.NewGuid(), "strap", "done"));

        played
            .Ticket.Discrepancies.Select(d => d.Sentence)
            .ShouldBe(["'done' was answered at 'strap' of a sheet that is not this ticket's."]);
    }

    [Fact]
    public void A_gate_cannot_be_answered_away()
    {
        var played = Played.At("snapshot-before");

        played
            .Refusal(new StepAnswered(played.Ticket.Sheet!.Id, "snapshot-before", "done"))
            .ShouldBe("'snapshot-before' is a gate: it is passed when its condition holds, not answered.");
    }
}
