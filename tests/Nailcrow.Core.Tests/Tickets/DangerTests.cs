using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Tests.Tickets;

public class DangerTests
{
    private static Danger Of(Snapshot seen)
    {
        var played = Played.Reported();
        played.Does(new SnapshotTaken(seen));
        return Danger.Of(played.Ticket);
    }

    [Fact]
    public void Nothing_known_is_not_nothing_wrong() =>
        Danger.Of(Played.Reported().Ticket).Sentence.ShouldBe("Nothing is known of the bays yet; take a snapshot.");

    [Theory]
    [InlineData(ArrayLevel.Raid6, 1, "vault is degraded, 5 of 6 members: it can lose one drive more.")]
    [InlineData(ArrayLevel.Raid5, 0, "vault is degraded, 5 of 6 members: one more loss and its data is gone.")]
    [InlineData(
        ArrayLevel.Raid0,
        -1,
        "vault is degraded, 5 of 6 members, and it has no redundancy: its data is lost. No swap brings it back; it is rebuilt from nothing and restored."
    )]
    public void How_much_is_left_is_said_in_a_sentence(ArrayLevel level, int margin, string sentence)
    {
        var danger = Of(Some.Snapshot(level));

        (danger.Margin, danger.Sentence).ShouldBe((margin, sentence));
    }

    [Fact]
    public void Other_drives_that_are_not_well_are_named_with_their_signs_the_worst_first_and_the_reported_one_is_not()
    {
        var seen = Some.Snapshot();
        seen = seen with
        {
            Bays =
            [
                .. seen.Bays.Select(b =>
                    b.Label switch
                    {
                        "3" => b with { Health = DriveHealth.Worn, Signs = ["38 reallocated sectors"] },
                        "6" => b with { Health = DriveHealth.Faulted },
                        _ => b,
                    }
                ),
            ],
        };

        Of(seen)
            .Suspects.Select(s => s.Sentence)
            .ShouldBe([
                "Bay 6 (P8GOOD0006) is faulted.",
                "Bay 3 (P8GOOD0003) is worn: 38 reallocated sectors. The rebuild reads from it: backup first.",
            ]);
    }

    [Fact]
    public void A_drive_that_calls_itself_good_is_suspect_when_the_log_is_full_of_it_and_what_it_takes_along_is_said()
    {
        var played = Played.Reported();
        played.Does(new SnapshotTaken(Some.Snapshot()));
        played.Does(new EvidenceSeen(EvidenceKind.LogLines, "syslog", "medium error", Bay: "4", Count: 41));

        var danger = Danger.Of(played.Ticket);

        danger
            .Suspects.Select(s => s.Sentence)
            .ShouldBe(["Bay 4 (P8GOOD0004) reads good, but medium error (41 times). The rebuild reads from it: backup first."]);
        (danger.Margin, danger.AtWorst).ShouldBe((1, 0));
    }

    [Theory]
    [InlineData(ArrayLevel.Raid6, SwapHelp.Helps)]
    [InlineData(ArrayLevel.Raid0, SwapHelp.NoRedundancy)]
    public void Whether_any_swap_helps_is_said_before_anybody_travels(ArrayLevel level, SwapHelp help)
    {
        var played = Played.Reported();
        played.Does(new SnapshotTaken(Some.Snapshot(level)));

        Danger.Of(played.Ticket).Help.ShouldBe(help);
        (NextAction.Of(played.Ticket).Move == Move.NoSwap).ShouldBe(help != SwapHelp.Helps);
    }

    [Fact]
    public void A_good_array_with_a_drive_that_only_warns_still_has_its_whole_margin()
    {
        var seen = Some.Snapshot(state: ArrayState.Whole, badRole: BayRole.Member);

        Of(seen).Sentence.ShouldBe("vault is whole, 6 of 6 members: it can lose 2 drives more.");
    }

    [Fact]
    public void A_serial_that_is_not_in_the_reported_bay_is_a_discrepancy_at_once()
    {
        var played = Played.Reported();
        var seen = Some.Snapshot();
        var swapped = seen with
        {
            Bays =
            [
                .. seen.Bays.Select(b =>
                    b.Label switch
                    {
                        "2" => b with { Serial = "P8GOOD0005" },
                        "5" => b with { Serial = Some.Bad },
                        _ => b,
                    }
                ),
            ],
        };

        played.Does(new SnapshotTaken(swapped));

        played
            .Ticket.Discrepancies.Select(d => d.Sentence)
            .ShouldBe([$"The report says {Some.Bad} is in bay 2; the machine has it in bay 5."]);
    }
}
