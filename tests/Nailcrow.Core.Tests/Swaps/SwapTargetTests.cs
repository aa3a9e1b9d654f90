using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Tests.Swaps;

public class SwapTargetTests
{
    private static Ticket Reported(string? bay, string? serial, Snapshot? seen)
    {
        var report = new FaultReported("FSC-1", Some.Chassis, "B12", "Corrin Trust", "Corrin", "Hall", JobKind.Fault, "Lamp", bay, serial);
        return new Ticket(1001) { Report = report, Snapshots = seen is null ? [] : [seen] };
    }

    private static string Target(Ticket ticket) =>
        SwapTarget.Of(ticket) switch
        {
            Parsed<SwapTarget>.Ok(var target) => $"bay {target.Bay.Label} of {target.Array.Name}",
            Parsed<SwapTarget>.Refused(var reason) => reason,
            _ => "",
        };

    [Fact]
    public void The_reported_serial_counts_more_than_the_reported_bay() =>
        Target(Reported("5", Some.Bad, Some.Snapshot())).ShouldBe("bay 2 of vault");

    [Fact]
    public void The_end_of_a_serial_is_enough_where_only_one_drive_ends_so() =>
        Target(Reported(null, "0517", Some.Snapshot())).ShouldBe("bay 2 of vault");

    [Fact]
    public void A_report_without_a_drive_means_the_one_that_is_out() =>
        Target(Reported(null, null, Some.Snapshot())).ShouldBe("bay 2 of vault");

    [Theory]
    [InlineData("77", null, "There is no bay '77' on this appliance; its bays are 1, 2, 3, 4, 5, 6.")]
    [InlineData(
        null,
        "P8NOWHERE1",
        "The report names P8NOWHERE1, and no bay holds it in the last snapshot. Unknown drive: call, do not guess."
    )]
    public void An_unknown_drive_is_not_guessed_at(string? bay, string? serial, string reason) =>
        Target(Reported(bay, serial, Some.Snapshot())).ShouldBe(reason);

    [Fact]
    public void Nothing_is_compiled_from_nothing() =>
        Target(Reported("2", null, null)).ShouldBe("Nothing is known of the bays yet; take a snapshot first.");

    [Fact]
    public void Two_drives_that_are_out_have_to_be_told_apart_by_a_person()
    {
        var seen = Some.Snapshot();
        seen = seen with
        {
            Bays = [.. seen.Bays.Select(b => b.Label == "4" ? b with { Role = BayRole.Dropped, Health = DriveHealth.Faulted } : b)],
        };

        Target(Reported(null, null, seen))
            .ShouldBe("The report names no drive, and 2 (2, 4) of the bays has a drive that is dropped or faulted; say which one it is.");
    }

    [Theory]
    [InlineData(
        ArrayLevel.Raid0,
        "vault has no redundancy: a swap brings no data back. Say so before anybody travels; it is rebuilt from nothing and restored."
    )]
    [InlineData(
        ArrayLevel.Raid5,
        "vault has lost more drives than it can bear: a swap brings no data back. Say so before anybody travels; it is rebuilt from nothing and restored."
    )]
    public void Where_a_swap_cannot_help_it_is_said_before_anybody_travels(ArrayLevel level, string reason)
    {
        var seen = Some.Snapshot(level);
        seen = seen with { Bays = [.. seen.Bays.Select(b => b.Label == "4" ? b with { Role = BayRole.Dropped } : b)] };

        Target(Reported("2", Some.Bad, seen)).ShouldBe(reason);
    }

    [Fact]
    public void A_drive_that_is_pulled_already_still_belongs_to_the_array_that_is_short()
    {
        var seen = Some.Snapshot();
        seen = seen with { Bays = [.. seen.Bays.Select(b => b.Label == "2" ? b with { Role = BayRole.Unclaimed, Array = null } : b)] };

        Target(Reported("2", Some.Bad, seen)).ShouldBe("bay 2 of vault");
    }
}
