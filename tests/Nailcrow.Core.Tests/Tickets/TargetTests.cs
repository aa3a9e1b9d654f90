using Nailcrow.Core.Appliances;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Tests.Tickets;

/// <summary>Which bay a ticket is about: one rule, which the drawing, the danger, the parts and the sheet all go by.</summary>
public class TargetTests
{
    private static Played Seen(Snapshot? seen = null)
    {
        var played = Played.Reported();
        played.Does(new SnapshotTaken(seen ?? Some.Snapshot()));
        return played;
    }

    [Fact]
    public void Before_anybody_looked_it_is_the_bay_that_was_reported() => Target.Label(Played.Reported().Ticket).ShouldBe("2");

    [Fact]
    public void Where_the_reported_serial_sits_elsewhere_the_serial_counts_and_not_the_bay()
    {
        var moved = Some.Snapshot();
        moved = moved with
        {
            Bays =
            [
                .. moved.Bays.Select(b =>
                    b.Label switch
                    {
                        "2" => b with { Serial = "P8GOOD0005", Role = BayRole.Member, Health = DriveHealth.Good },
                        "5" => b with { Serial = Some.Bad, Role = BayRole.Dropped, Health = DriveHealth.Faulted },
                        _ => b,
                    }
                ),
            ],
        };

        Target.Label(Seen(moved).Ticket).ShouldBe("5");
        Target.Bay(Seen(moved).Ticket)?.Serial.ShouldBe(Some.Bad);
    }

    [Fact]
    public void What_was_wiped_and_was_in_the_machine_again_holds_the_customers_data_again()
    {
        var played = Played.At("end");
        Target.HoldsCustomersData(played.Ticket, Some.Bad).ShouldBeTrue();
        played.Does(new DriveWiped(Some.Bad, "Sanitize command"));
        Target.HoldsCustomersData(played.Ticket, Some.Bad).ShouldBeFalse();
        Target.HoldsCustomersData(played.Ticket, Some.New).ShouldBeFalse(); // it is in, and no drive that came out

        var again = played.Ticket with
        {
            EarlierSwaps = [played.Ticket.Swap],
            Swap = Swap.NotBegun with { OutSerial = Some.Bad, PulledAt = played.Now.AddHours(1) },
        };
        Target.HoldsCustomersData(again, Some.Bad).ShouldBeTrue();
        Target
            .HoldsCustomersData(
                again with
                {
                    Wiped = again.Wiped.Add(new(Some.Bad, played.Now.AddHours(2), "ilka", Guid.NewGuid(), 9)),
                },
                Some.Bad
            )
            .ShouldBeFalse();
    }

    [Fact]
    public void Of_several_drives_it_is_the_one_whose_turn_it_is()
    {
        var played = Seen();
        played.Does(new DrivesChosen(["P8GOOD0004", Some.Bad]));

        Target.Label(played.Ticket).ShouldBe("4");
    }

    [Fact]
    public void A_new_drive_in_the_bay_is_another_drive_and_may_be_a_suspect_itself()
    {
        var played = Played.At("end");
        Danger.Of(played.Ticket).Suspects.ShouldBeEmpty();
        var dead = Some.Snapshot(badRole: BayRole.Dropped, badSerial: Some.New);

        played.Arrives(new SnapshotTaken(dead));

        Danger.Of(played.Ticket).Suspects.Select(s => s.Serial).ShouldBe([Some.New]);
    }

    [Fact]
    public void A_replacement_is_as_large_as_the_array_uses_even_after_the_old_drive_left_its_bay()
    {
        var played = Played.WithSheet();
        Target.LeastBytes(played.Ticket).ShouldBe(8_000_000_000_000);

        played.Arrives(new SnapshotTaken(Some.Snapshot(badRole: BayRole.Empty)));

        Target.LeastBytes(played.Ticket).ShouldBe(8_000_000_000_000);
    }

    [Fact]
    public void Nothing_is_made_up_where_nothing_is_known()
    {
        Target.Bay(Played.Reported().Ticket).ShouldBeNull();
        Target.Array(Played.Reported().Ticket).ShouldBeNull();
        Target.LeastBytes(Played.Reported().Ticket).ShouldBeNull();
    }

    [Fact]
    public void Only_a_drive_that_came_out_holds_the_customers_data_and_only_until_it_was_wiped()
    {
        var played = Played.At("end");

        Target.HoldsCustomersData(played.Ticket, Some.Bad).ShouldBeTrue();
        Target.HoldsCustomersData(played.Ticket, Some.Bad.ToLowerInvariant()).ShouldBeTrue();
        Target.HoldsCustomersData(played.Ticket, Some.New).ShouldBeFalse();
        played.Does(new DriveWiped(Some.Bad, "Overwritten once"));
        Target.HoldsCustomersData(played.Ticket, Some.Bad).ShouldBeFalse();
    }
}
