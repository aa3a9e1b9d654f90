using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Core.Tests.Swaps;

/// <summary>What is read at the scan of the drive in hand, and what it comes to.</summary>
public class ScanReadingTests
{
    private const string WorldwideName = "5000C500A1B2C3D4";

    [Theory]
    [InlineData(Some.Bad)]
    [InlineData(" p8badd0517 ")]
    [InlineData("P8-BADD-0517")]
    [InlineData("P8BADD\u200B0517\u202C")]
    [InlineData("S/N: P8BADD0517")]
    [InlineData("SP8BADD0517")] // a data identifier before it
    public void However_the_right_serial_is_written_it_is_the_right_drive(string read)
    {
        var played = Played.At("serial-out");

        played.Answers(read);

        played.Ticket.Swap.OutSerial.ShouldBe(Some.Bad);
    }

    [Theory]
    [InlineData("cannot read it")]
    [InlineData("DONE")]
    [InlineData("yes")]
    [InlineData("517")]
    [InlineData("http://maker/8")]
    [InlineData("0517")] // its end only
    [InlineData("P8BADD0571")] // two swapped
    [InlineData("P8BADD517")] // one missing
    [InlineData("P8BADD05177")] // one too many
    [InlineData("P8BAOD0517")] // misread
    [InlineData(WorldwideName)]
    public void A_word_a_slip_or_another_code_of_the_label_is_asked_again_and_accuses_no_drive(string read)
    {
        var played = Played.At("serial-out");

        played.Answers(read);

        (played.Ticket.Run?.Current, played.Ticket.Swap.WrongOut, played.Ticket.Swap.OutSerial).ShouldBe(("serial-out", null, null));
        played.Ticket.Run?.Visits[^1].Said.ShouldNotBeNullOrEmpty();
        played.Answers(Some.Bad); // a slip is put right by reading again
        played.Ticket.Swap.OutSerial.ShouldBe(Some.Bad);
    }

    [Theory]
    [InlineData("P8BADD0571")]
    [InlineData(WorldwideName)]
    [InlineData("P8BAOD0517")]
    public void The_same_read_twice_is_what_the_label_says(string read)
    {
        var played = Played.At("serial-out");
        played.Answers(read);

        played.Answers($" {read.ToLowerInvariant()}");

        played.Ticket.Swap.WrongOut.ShouldBe(SerialNumber.Normalise(read));
        played.Ticket.Run?.Current.ShouldBe("put-back");
    }

    [Theory]
    [InlineData("cannot")]
    [InlineData("0517")]
    public void What_is_no_whole_serial_stays_none_however_often_it_is_read(string read)
    {
        var played = Played.At("serial-out");
        for (var times = 0; times < 3; times++)
            played.Answers(read);

        played.Ticket.Run?.Current.ShouldBe("serial-out");
        played.Ticket.Swap.WrongOut.ShouldBeNull();
    }

    [Theory]
    [InlineData("P8GOOD0003", "That is the drive of bay 3, member of vault.")]
    [InlineData(Some.New, "That is the replacement you brought.")]
    public void A_drive_that_somebody_knows_is_the_wrong_one_at_once(string read, string says)
    {
        var played = Played.At("serial-out");

        played.Answers(read);

        played.Ticket.Swap.WrongOut.ShouldBe(read);
        played.Ticket.Run?.Visits[^1].Said.ShouldNotBeNull().ShouldEndWith(says);
    }

    [Fact]
    public void A_neighbours_label_that_was_read_by_mistake_is_taken_back_and_the_drive_in_hand_is_read_again()
    {
        var played = Played.At("serial-out");
        var held = played.Ticket.Custody.Moves;
        played.Answers("P8GOOD0003");
        played.Ticket.Swap.WrongOut.ShouldBe("P8GOOD0003");

        played.Does(new StepTakenBack(played.Ticket.Sheet!.Id, "serial-out"));

        (played.Step?.Id, played.Ticket.Swap.WrongOut, played.Ticket.Swap.NearMisses.Count).ShouldBe(("serial-out", null, 0));
        played.Ticket.Custody.Moves.ShouldBe(held);
        played.Answers(Some.Bad);
        played.Ticket.Swap.OutSerial.ShouldBe(Some.Bad);
    }

    [Fact]
    public void A_wrong_drive_that_went_back_is_not_taken_back_by_words()
    {
        var played = Played.At("serial-out");
        played.Answers("P8GOOD0003");
        played.Answers("done");

        played
            .Refusal(new StepTakenBack(played.Ticket.Sheet!.Id, "put-back"))
            .ShouldBe(
                "'put-back' recorded what was done to a drive, and that is not undone by an answer. If it was otherwise, call and say so."
            );
        played.Refusal(new StepTakenBack(played.Ticket.Sheet!.Id, "serial-out")).ShouldStartWith("The last answer was given at 'put-back'");
    }

    [Fact]
    public void A_serial_that_people_misread_and_that_is_another_drives_is_the_other_drive()
    {
        var played = Played.At("serial-out");
        var seen = Some.Snapshot();
        played.Arrives(
            new SnapshotTaken(seen with { Bays = [.. seen.Bays.Select(b => b.Label == "4" ? b with { Serial = "P8BADDO517" } : b)] }),
            at: Some.Noon
        );

        played.Answers("P8BADDO517"); // with the letter O

        played.Ticket.Swap.WrongOut.ShouldBe("P8BADDO517");
    }

    [Fact]
    public void A_sheet_from_before_is_followed_by_the_rules_it_was_made_under()
    {
        var played = Played.At("serial-out");
        played.Ticket.Sheet?.ReadingRules.ShouldBe(RunSheet.ReadingRulesNow);
        var old = played.Ticket with { Sheet = played.Ticket.Sheet! with { ReadingRules = 0 } };

        Stepping.Branch(old, old.Sheet, played.Step!, WorldwideName).Branch.ShouldBe("different");
        Stepping.Branch(old, old.Sheet, played.Step!, "P8-BADD-0517").Branch.ShouldBe("different"); // as it was told then
    }

    [Fact]
    public void What_should_be_read_is_shown_only_to_who_asks_and_that_is_on_record()
    {
        var played = Played.At("serial-out");
        RunView Seen() => RunView.Of(played.Ticket, new Surroundings(), played.Now)!;
        (Seen().Current?.See, Seen().Bay, Seen().MayBeShown).ShouldBe((null, null, true));

        played.Does(new SerialShown(played.Ticket.Sheet!.Id, "serial-out"));

        (Seen().Current?.See, Seen().MayBeShown).ShouldBe((Some.Bad, false));
        played.Answers("P8BADD0571");
        played.Ticket.Run?.Visits[^1].Said.ShouldNotBeNull().ShouldEndWith("It had been shown before it was read.");
        var beside = Seen().LastScan.ShouldNotBeNull();
        (beside.Read, beside.Expected, string.Join(",", beside.Differs)).ShouldBe(("P8BADD0571", Some.Bad, "8,9"));
    }

    [Fact]
    public void No_serial_is_the_same_as_no_serial()
    {
        SerialComparison.Between("", "").Outcome.ShouldBe(SerialOutcome.Different);
        SerialComparison.Between(null, " ").Outcome.ShouldBe(SerialOutcome.Different);
    }
}
