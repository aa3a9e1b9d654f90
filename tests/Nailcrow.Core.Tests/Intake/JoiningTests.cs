using Nailcrow.Core.Intake;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Tests.Intake;

public class JoiningTests
{
    private static TicketLine Line(long number, string? bay, string? serial) =>
        new(number, "FSC-1", "B12", "Corrin", "Corrin", "Lamp", bay, serial, Stage.Received, null, "", null, new("dispatcher", "", Move.Take), null, false, Some.Noon, Some.Noon);

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
    public void Where_two_would_do_the_older_one_is_joined() => Joining.Open([Line(5, "2", null), Line(3, "2", null)], Report("2", null)).ShouldBe(3);
}
