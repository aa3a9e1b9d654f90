using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tests.Procedures;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Core.Tests.Swaps;

/// <summary>Bays 2 and 3 have failed; each gets its own new drive, the worst first.</summary>
public class SeveralDrivesTests
{
    private const string Second = "P8GOOD0003";
    private static readonly string[] New = ["C8NEWW2286", "C8NEWW2287"];

    /// <summary>The first one done, the second begun, and the bays looked at in between.</summary>
    private static Played AtTheSecond()
    {
        var played = Played.Reported();
        played.Does(new EngineerAssigned("ilka"));
        played.Does(new SnapshotTaken(Seen()));
        played.Does(new DrivesChosen([Some.Bad, Second]));
        foreach (var part in New)
        {
            played.Does(new PartReserved(part, "Cindral C8", 8_000_000_000_000, "Stores"), Played.Sefa);
            played.Does(new PartIssued(part, "ilka"), Played.Sefa);
        }
        played.Does(new ArrivedOnSite());
        played.Does(new SnapshotTaken(Seen()));
        var facts = new SheetFacts(
            Some.Model,
            "FSC-1",
            Some.Chassis,
            "Corrin",
            "Hall",
            "vault",
            [new("2", Some.Bad, "dk0", New[0]), new("3", Second, "dk6", New[1])],
            TicketFacts.Ordinary with
            {
                Drives = 2,
            }
        );
        played.Does(new SheetCompiled(((Parsed<RunSheet>.Ok)SheetCompiler.Compile(Shipped.Named("several"), facts, Guid.NewGuid())).Value));
        Follow(played, until: "which.2");
        played.Does(new SnapshotTaken(Seen(New[0])));
        return played;
    }

    /// <summary>What is asked after the loop is asked of the drive that was worked on last, whichever it is.</summary>
    [Theory, InlineData(1, ""), InlineData(2, ".1"), InlineData(2, ".2"), InlineData(3, ".3")]
    public void Where_no_mark_is_left_for_a_drive_and_a_lead_says_no_the_run_is_handed_over_whichever_drive_it_is(int drives, string nth)
    {
        var procedure = Shipped.Named(drives == 1 ? "front-hot" : "several");
        var facts = SampleFacts.For(procedure, Some.Model, drives);
        var run = new DryRun(((Parsed<RunSheet>.Ok)SheetCompiler.Compile(procedure, facts, Guid.Empty)).Value);
        var wrong = false;
        for (var asked = 0; run.Current is { } step && asked < 400; asked++)
        {
            var choice =
                step.Id == $"serial-out{nth}" && !wrong ? "different"
                : step.Id == $"bay-known{nth}" && wrong ? "none-left"
                : step.Id == $"no-mark-left{nth}" ? "refused"
                : run.Choices[0];
            wrong |= choice == "different";
            run.Answer(run.Typed(choice));
        }

        run.HandedOver.ShouldBeTrue();
        run.Visits.ShouldContain(v => v.Step == "handed-over");
    }

    private static void Follow(Played played, string until)
    {
        for (var asked = 0; played.Step is { } step && step.Id != until && asked < 200; asked++)
        {
            var inserted = played.Ticket.Swaps.Select(s => s.InSerial).OfType<string>().ToArray();
            if (step.Kind == StepKind.Gate && played.PassRefusal() != "accepted")
                played.Does(new SnapshotTaken(Seen(inserted)));
            played.Now = played.Now.AddSeconds(step.Seconds ?? 0);
            if (step.IsPassed)
                played.Passes();
            else
                played.Answers(
                    step.Kind == StepKind.Scan ? Stepping.Expected(played.Ticket, played.Ticket.Sheet!, step)!
                    : step.Erases ? $"{played.Ticket.Sheet!.DriveOf(step).Bay} {played.Ticket.Swap.InSerial}"
                    : step.Kind == StepKind.Read ? "Nightly"
                    : step.Answers[0].Answer
                ); // a sheet is being followed
        }
    }

    /// <summary>Six bays; what is new in 2 and 3 is a member at once.</summary>
    private static Snapshot Seen(params string[] inserted)
    {
        var whole = Some.Snapshot(state: inserted.Length == 2 ? ArrayState.Whole : ArrayState.Degraded);
        return whole with { Bays = [.. whole.Bays.Select(b => Numbered(b, inserted))] };
    }

    private static Bay Numbered(Bay bay, string[] inserted) =>
        bay.Label is not ("2" or "3") ? bay
        : int.Parse(bay.Label, System.Globalization.CultureInfo.InvariantCulture) - 2 is var drive && drive < inserted.Length
            ? bay with
            {
                Serial = inserted[drive],
                Role = BayRole.Member,
                Health = DriveHealth.Good,
            }
        : bay with { Serial = drive == 0 ? Some.Bad : Second, Role = BayRole.Dropped, Health = DriveHealth.Faulted };

    [Fact]
    public void What_was_before_stays_what_it_was_however_often_the_bays_are_looked_at_in_between()
    {
        var played = AtTheSecond();

        Follow(played, until: "end");

        played.Ticket.Run!.IsFinished.ShouldBeTrue(played.Step?.Id); // a sheet was made
        played.Ticket.Before!.BayLabelled("2")!.Serial.ShouldBe(Some.Bad); // every visit has one
        played.Ticket.Swaps.Select(s => (s.Bay, s.OutSerial, s.InSerial)).ShouldBe([("2", Some.Bad, New[0]), ("3", Second, New[1])]);
    }

    [Fact]
    public void A_wrong_drive_at_the_second_is_compared_with_what_was_before_that_pull()
    {
        var played = AtTheSecond();
        Follow(played, until: "serial-out.2");
        played.Answers("P8GOOD0004");
        played.Answers("done");

        played.Does(new SnapshotTaken(Seen(New[0])));

        played.PassRefusal().ShouldBe("accepted");
    }

    [Fact]
    public void Between_two_drives_the_ticket_is_not_cancelled_and_the_data_on_the_first_is_asked_about()
    {
        var played = AtTheSecond();

        played
            .Refusal(new TicketCancelled("Changed my mind."), Played.Lioth)
            .ShouldBe("A drive has been moved; this ticket can be closed, not cancelled.");
        played
            .Refusal(new ReturnOpened(Some.Bad, ReturnReason.ExchangeUnderWarranty, new(HolderKind.Maker, "Pellworth"), "RX-1", null, null))
            .ShouldBe("The customer's data is on this drive. Ask whether it may leave, and write down who agreed.");
    }
}
