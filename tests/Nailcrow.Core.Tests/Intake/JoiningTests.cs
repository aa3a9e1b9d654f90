using CsCheck;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Core.Tests.Intake;

public class JoiningTests
{
    private static TicketLine Line(long number, string? bay, string? serial) =>
        new(
            number,
            "FSC-1",
            "B12",
            "Corrin",
            "Corrin",
            "Lamp",
            bay,
            serial,
            Stage.Received,
            null,
            "",
            null,
            new("dispatcher", "", Move.Take),
            null,
            false,
            Some.Noon,
            Some.Noon
        );

    private static FaultReported Report(string? bay, string? serial) =>
        new("FSC-1", Some.Chassis, "B12", "Corrin", "Corrin", "Hall", JobKind.Fault, "Beeper", bay, serial);

    [Theory]
    [InlineData(null, "s/n p8badd0517", 1L)]
    [InlineData("2", null, 1L)]
    [InlineData("2", "P8OTHER001", null)]
    [InlineData("3", null, null)]
    [InlineData(null, null, null)]
    public void An_alert_joins_the_open_ticket_of_its_drive_and_of_no_other(string? bay, string? serial, long? ticket) =>
        Joining.Open([Line(1, "2", Some.Bad), Line(2, "7", "P8SEVEN777")], Report(bay, serial)).ShouldBe(ticket);

    [Fact]
    public void Where_two_would_do_the_older_one_is_joined() =>
        Joining.Open([Line(5, "2", null), Line(3, "2", null)], Report("2", null)).ShouldBe(3);

    private static Alert Said(int second, string? bay = null, string? array = null) =>
        new(
            new Guid(second, 0, 0, new byte[8]),
            "syslog",
            "brk",
            Some.Noon.AddSeconds(second),
            EvidenceKind.Alert,
            "offline",
            "FSC-1",
            bay,
            Array: array
        );

    private static readonly Dictionary<long, string?> Arrays = new() { [1] = "vault", [2] = "desk" };

    [Fact]
    public void A_second_drive_of_one_array_joins_the_first_ones_ticket_and_one_of_another_array_is_a_fault_of_its_own()
    {
        var faults = Joining.Of([Line(1, "2", null)], Arrays, [Said(1, "2", "vault"), Said(2, "5", "vault"), Said(3, "9", "trace")]);

        faults.Select(f => (f.Ticket, f.Alerts.Count)).ShouldBe([(1L, 2), (null, 1)]);
    }

    [Fact]
    public void What_names_no_drive_goes_with_the_fault_that_is_there() =>
        Joining.Of([], Arrays, [Said(1), Said(2, "5", "vault")]).Select(f => f.Alerts.Count).ShouldBe([2]);

    [Fact]
    public void Alerts_belong_together_in_the_same_way_whatever_the_order_in_which_they_came()
    {
        var alert =
            from second in Gen.Int[1, 500]
            from bay in Gen.Int[0, 12]
            from vague in Gen.Int[0, 3]
            select vague == 0
                ? Said(second)
                : Said(
                    second,
                    bay % 5 == 0 ? null : $"{bay}",
                    bay < 7 ? "vault"
                        : bay < 10 ? "desk"
                        : null
                );

        (
            from some in alert.Array[1, 12]
            let alerts = some.DistinctBy(a => a.Id).ToArray()
            from open in Gen.Int[0, 2]
            from shuffled in Gen.Shuffle(alerts)
            select (alerts, shuffled, open)
        ).Sample(a =>
        {
            TicketLine[] open = [.. new[] { Line(1, "2", null), Line(2, "8", null) }.Take(a.open)];

            Told(Joining.Of(open, Arrays, a.shuffled)).ShouldBe(Told(Joining.Of(open, Arrays, a.alerts)));
        });
    }

    private static string Told(IEnumerable<OneFault> faults) =>
        string.Join(" | ", faults.Select(f => $"{f.Ticket}: {string.Join(' ', f.Alerts.Select(a => a.Id))}"));

    [Theory, InlineData(1, true), InlineData(2, true), InlineData(3, false), InlineData(64, true), InlineData(65, false)]
    public void What_is_said_again_and_again_is_told_as_its_count_doubles(int times, bool told) =>
        Flapping.IsWorthTelling(times).ShouldBe(told);
}
