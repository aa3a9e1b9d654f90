using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Tests.Swaps;

/// <summary>In which order several drives of one array are done.</summary>
public class WorstFirstTests
{
    private static string[] Order(Snapshot seen, JobKind job = JobKind.Fault, string? bay = "2", string? serial = Some.Bad)
    {
        var played = new Played();
        played.Does(
            new FaultReported("FSC-1", Some.Chassis, "Brackmere B12", "Corrin Trust", "Corrin", "Hall", job, "Amber lamp", bay, serial)
        );
        played.Does(new SnapshotTaken(seen));
        return [.. Proposed(played).Select(d => d.Bay)];
    }

    private static IReadOnlyList<DriveInTurn> Proposed(Played played) => WorstFirst.Of(played.Ticket, Danger.Of(played.Ticket));

    private static Snapshot With(params (string Label, Func<Bay, Bay> As)[] changes)
    {
        var seen = Some.Snapshot();
        return seen with { Bays = [.. seen.Bays.Select(b => Array.Find(changes, c => c.Label == b.Label).As?.Invoke(b) ?? b)] };
    }

    [Fact]
    public void A_drive_that_the_array_has_lost_goes_before_one_that_works_and_will_fail() =>
        Order(With(("1", b => b with { Health = DriveHealth.Worn, Signs = ["reallocated", "pending", "timeouts"] }))).ShouldBe(["2", "1"]);

    [Fact]
    public void Of_those_still_in_the_array_whatever_most_speaks_against_goes_first() =>
        Order(
                With(
                    ("1", b => b with { Health = DriveHealth.Worn }),
                    ("4", b => b with { Health = DriveHealth.Faulted }),
                    ("5", b => b with { Health = DriveHealth.Worn, Signs = ["reallocated"] })
                )
            )
            .ShouldBe(["2", "4", "5", "1"]);

    [Fact]
    public void What_another_array_has_dropped_is_no_matter_of_this_ticket()
    {
        var seen = With(("6", b => b with { Role = BayRole.Dropped, Health = DriveHealth.Faulted, Array = "other" }));

        Order(seen with { Arrays = [.. seen.Arrays, new("other", ArrayLevel.Raid1, 2, ArrayState.Degraded)] }).ShouldBe(["2"]);
    }

    [Fact]
    public void A_drive_that_belongs_to_no_array_is_no_matter_of_this_ticket() =>
        Order(With(("6", b => b with { Health = DriveHealth.Faulted, Role = BayRole.Unclaimed, Array = null }))).ShouldBe(["2"]);

    [Fact]
    public void A_drive_that_was_dropped_and_reads_good_is_looked_into_and_not_swapped_beside_another_one()
    {
        static Bay Dropped(Bay bay) => bay with { Role = BayRole.Dropped, Health = DriveHealth.Good };

        Order(With(("3", Dropped))).ShouldBe(["2"]);
        Order(With(("3", Dropped)), bay: "3", serial: "P8GOOD0003").ShouldBe(["2", "3"]);
    }

    [Fact]
    public void For_growth_all_members_come_what_is_not_well_first_and_then_the_smallest() =>
        Order(
                With(
                    ("2", b => b with { Role = BayRole.Member, Health = DriveHealth.Good }),
                    ("5", b => b with { Health = DriveHealth.Worn }),
                    ("6", b => b with { Bytes = 4_000_000_000_000 })
                ),
                JobKind.Growth,
                bay: null,
                serial: null
            )
            .ShouldBe(["5", "6", "1", "2", "3", "4"]);

    [Fact]
    public void Once_a_drive_has_been_moved_nothing_is_proposed_any_more() => Proposed(Played.At("mark-bad")).ShouldBeEmpty();
}
