using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Tests.Tickets.Planning;

public class PriorityTests
{
    private static TicketLine Line(int? margin, int? dueInHours = null, string? hold = null, int? worst = null) =>
        new(
            1,
            "FSC-1",
            "B12",
            "Corrin",
            "Corrin",
            "Lamp",
            "2",
            null,
            Stage.Received,
            margin,
            "",
            null,
            new("dispatcher", "", Move.Take),
            hold,
            false,
            Some.Noon,
            Some.Noon,
            worst ?? margin,
            SwapHelp.Helps,
            dueInHours is { } hours ? Some.Noon.AddHours(hours) : null,
            dueInHours is null ? null : DeadlineKind.Respond
        );

    [Theory]
    [InlineData(0, 200, null, Urgency.Now, "no margin left")]
    [InlineData(null, 200, null, Urgency.Today, "danger not known")]
    [InlineData(1, 200, -1, Urgency.Today, "a suspect more and data is lost")]
    [InlineData(1, 200, null, Urgency.Soon, "margin one")]
    [InlineData(1, 3, null, Urgency.Today, "margin one, respond within 3 h 0 min")]
    [InlineData(2, 200, null, Urgency.CanWait, "margin 2")]
    public void Danger_comes_first_and_a_promise_that_runs_out_comes_next(
        int? margin,
        int dueIn,
        int? worst,
        Urgency urgency,
        string because
    )
    {
        var priority = Priority.Of(Line(margin, dueIn, worst: worst), Some.Noon);

        (priority.Urgency, priority.Because).ShouldBe((urgency, because));
    }

    [Fact]
    public void A_missed_promise_never_comes_before_an_array_without_margin() =>
        Priority.Of(Line(2, -500), Some.Noon.AddDays(30)).Score.ShouldBeLessThan(Priority.Of(Line(0), Some.Noon).Score);

    [Fact]
    public void What_is_on_hold_waits_behind_everything_that_is_not() =>
        Priority.Of(Line(0, -5, "The pass is closed."), Some.Noon).Score.ShouldBeLessThan(Priority.Of(Line(2), Some.Noon).Score);

    private static Site At(string name, double north, double east) => new(name, "c", "a", "UTC", Latitude: north, Longitude: east);

    [Fact]
    public void A_days_sites_are_visited_the_shortest_way_and_those_nobody_knows_the_place_of_come_last()
    {
        Site[] stops = [At("far", 10, 0), At("near", 1, 0), new("lost", "c", "a", "UTC"), At("between", 5, 0)];

        TravelOrder.Of(At("home", 0, 0), stops).Select(s => s.Name).ShouldBe(["near", "between", "far", "lost"]);
        TravelOrder.Km(At("a", 0, 0), At("b", 0, 1)).ShouldNotBeNull().ShouldBe(111.19, 0.01); // one degree of the equator
    }

    [Fact]
    public void An_engineer_plans_their_own_visits_and_a_dispatcher_anybodys()
    {
        var played = Played.Reported();
        var visit = new VisitPlanned(Some.Noon.AddHours(3), Some.Noon.AddHours(5));

        played.Refusal(visit, Played.Lioth).ShouldBe("Assign an engineer first; a visit is somebody's.");
        played.Does(new EngineerAssigned("ilka"), Played.Ilka);
        played.Refusal(visit, Played.Tamsel).ShouldBe("T-1001 is with ilka; a dispatcher plans it.");
        played.Does(visit, Played.Ilka);
        played.Ticket.Visit.ShouldBe(new PlannedVisit(visit.From, visit.To, "ilka"));
    }
}
