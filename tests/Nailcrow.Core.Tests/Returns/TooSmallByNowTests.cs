using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>Stores set a part aside by what is known; what the machine shows afterwards may be more.</summary>
public class TooSmallByNowTests
{
    private const string Larger = "C8LARGER01";
    private const long FourTB = 4_000_000_000_000;
    private const long EightTB = 8_000_000_000_000;

    private static void SetAside(Played played, string serial, long bytes)
    {
        played.Does(new PartReserved(serial, "Cindral", bytes, "Main stores"), Played.Sefa);
        played.Does(new PartIssued(serial, "ilka"), Played.Sefa);
    }

    [Fact]
    public void A_part_that_the_first_look_shows_to_be_too_small_is_given_up_before_anybody_takes_it_along()
    {
        var played = Played.Reported();
        played.Does(new EngineerAssigned("ilka"));
        SetAside(played, Some.New, FourTB); // of the drive that failed nobody knows how large it is

        played.Does(new SnapshotTaken(Some.Snapshot()));

        var next = NextAction.Of(played.Ticket);
        (next.Who, next.Move).ShouldBe(("ilka", Move.GiveUpPart));
        next.Say.ShouldBe(
            $"Give {Some.New} up as too small: {Some.New} has 4,000,000,000,000 bytes; 8,000,000,000,000 are needed for the array "
                + "to hold what it holds now. Stores reserves a larger one."
        );
        Replacement.Of(played.Ticket).Single().Is.ShouldBe("with ilka, and too small: 8,000,000,000,000 bytes are needed");

        played.Does(new PartGivenUp(Some.New, NoReplacement.TooSmall));
        SetAside(played, Larger, EightTB);
        NextAction.Of(played.Ticket).Move.ShouldBe(Move.Arrive);
        Replacement.Of(played.Ticket).Single().Is.ShouldBe("with ilka");
    }

    [Fact]
    public void The_run_does_not_go_past_having_a_part_that_is_too_small_unless_a_lead_overrules_it_in_writing()
    {
        var played = Played.At("part");
        var small = played.Ticket with { Parts = [.. played.Ticket.Parts.Select(p => p with { Bytes = FourTB })] };
        var (passes, overrules) = (
            new StepPassed(played.Ticket.Sheet!.Id, "part"),
            new StepOverruled(played.Ticket.Sheet.Id, "part", "They shrink it.")
        );

        Ruling.On(small, passes, Played.Ilka, played.Now).ShouldBeOfType<Ruling.Refused>().Reason.ShouldContain("Give it up as too small");
        Ruling.On(small, overrules, Played.Lioth, played.Now).ShouldBeOfType<Ruling.Accepted>();
        Ruling.On(played.Ticket, passes, Played.Ilka, played.Now).ShouldBeOfType<Ruling.Accepted>();
    }

    [Fact]
    public void Each_of_several_parts_is_held_against_the_drive_that_it_is_for()
    {
        var played = Played.Reported();
        played.Does(new EngineerAssigned("ilka"));
        var seen = Some.Snapshot(ArrayLevel.MixedSizeOne, ArrayState.Whole, BayRole.Member);
        played.Does(
            new SnapshotTaken(
                seen with
                {
                    Bays = [.. seen.Bays.Select(b => b with { Bytes = b.Label is "1" or "2" ? FourTB : EightTB })],
                    Arrays = [.. seen.Arrays.Select(a => a with { MemberBytes = null })],
                }
            )
        );
        played.Does(new DrivesChosen([Some.Bad, "P8GOOD0003"]));

        played.Does(new PartReserved(Some.New, "Cindral", FourTB, "Main stores"), Played.Sefa);
        played
            .Refusal(new PartReserved("C8SECOND01", "Cindral", FourTB, "Main stores"), Played.Sefa)
            .ShouldContain("are needed for the array");
        played.Does(new PartReserved(Larger, "Cindral", EightTB, "Main stores"), Played.Sefa);
        Replacement.Of(played.Ticket).ShouldAllBe(r => r.Is == "set aside in Main stores");
    }
}
