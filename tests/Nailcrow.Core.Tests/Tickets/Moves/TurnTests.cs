using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Core.Tests.Tickets.Moves;

public class TurnTests
{
    private static TicketLine Line(string who, string? hold = null) =>
        new(
            1001,
            "FSC-1",
            "B12",
            "Corrin Trust",
            "Corrin",
            "Lamp",
            null,
            null,
            Stage.Received,
            null,
            "",
            null,
            new(who, "Do it.", Move.Take),
            hold,
            false,
            Some.Noon,
            Some.Noon
        );

    private static readonly Actor Ilka = new("ilka", [Role.Engineer, Role.Stores, Role.Dispatcher]);

    [Theory]
    [InlineData("ilka", Turn.Yours)]
    [InlineData("stores", Turn.Yours)]
    [InlineData("tamsel", Turn.Others)]
    [InlineData("lead", Turn.Others)]
    [InlineData("dispatcher", Turn.Anybodys)]
    [InlineData("nobody", Turn.Others)]
    public void A_ticket_waits_for_a_person_by_name_or_by_role_and_one_that_nobody_has_for_anybody(string who, Turn turn) =>
        Turns.Of(Line(who), Ilka).ShouldBe(turn);

    [Fact]
    public void What_is_on_hold_waits_for_nobody() => Turns.Of(Line("ilka", "High water"), Ilka).ShouldBe(Turn.Others);
}
