using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Tests.Tickets.Moves;

/// <summary>What front ends may offer: everything that would be taken, and nothing that would be refused.</summary>
public class MovesTests
{
    private static readonly Actor Dorrik = new("dorrik", [Role.Dispatcher]);
    private static readonly Actor Admin = new("admin", [Role.Admin]);
    private static readonly Actor[] Everybody = [Played.Ilka, Played.Tamsel, Played.Sefa, Played.Lioth, Dorrik, Admin];

    private static readonly Surroundings Reached = new(Some.Model, Reachable: true);

    private static IReadOnlyList<OfferedMove> For(Actor actor, Played played, Surroundings? known = null) =>
        MovesOf.Ticket(played.Ticket, actor, played.Now, known ?? Reached);

    private static OfferedMove One(Actor actor, Played played, Move move) => For(actor, played).First(m => m.Move == move);

    [Theory, MemberData(nameof(Chances))]
    public void Whatever_is_offered_is_taken_by_whomever_and_in_whatever_order_people_press(int chance)
    {
        var random = new Random(chance);
        var played = chance % 3 == 0 ? Played.WithSheet() : Played.Reported();
        for (var press = 0; press < 60; press++)
        {
            var actor = Everybody[random.Next(Everybody.Length)];
            var offered = For(actor, played).Where(m => m is { May: true, Body: not null, Way: MoveWay.Entry }).ToList();
            if (press < 40) // what ends a ticket would end the test
                offered.RemoveAll(m => m.Move is Move.Cancel or Move.Close or Move.CloseOtherwise);
            if (offered.Count == 0)
                continue;
            var move = offered[random.Next(offered.Count)];
            var body = Running.FilledMove.Of(move, played.Now, random);
            Ruling
                .On(played.Ticket, body, actor, played.Now)
                .ShouldBe(new Ruling.Accepted(), $"{move.Move} by {actor.Name}, press {press}: {body}");
            played.Arrives(body, actor);
        }
    }

    public static TheoryData<int> Chances => [.. Enumerable.Range(1, 60)];

    [Theory, MemberData(nameof(Chances))]
    public void Nobody_is_ever_stuck_since_somebody_may_always_make_the_next_move(int chance)
    {
        var random = new Random(chance);
        var played = chance % 2 == 0 ? Played.WithSheet() : Played.Reported();
        for (var press = 0; press < 40; press++)
        {
            var next = NextAction.Of(played.Ticket);
            // Where no swap helps, calling a lead is the next thing, and it is always there.
            var wanted = next.Move == Move.NoSwap ? Move.CallHelp : next.Move;
            if (wanted != Move.Nothing)
                Everybody
                    .SelectMany(a => For(a, played))
                    .Any(m => m.May && (m.Move == wanted || (wanted == Move.TakeSnapshot && m.Move == Move.TypeSnapshot)))
                    .ShouldBeTrue($"{next.Who} has to {wanted}, and nobody may: {next.Say}");
            var actor = Everybody[random.Next(Everybody.Length)];
            var offered = For(actor, played).Where(m => m is { May: true, Body: not null, Way: MoveWay.Entry }).ToList();
            if (offered.Count > 0)
                played.Arrives(Running.FilledMove.Of(offered[random.Next(offered.Count)], played.Now, random), actor);
        }
    }

    [Fact]
    public void What_may_not_be_done_says_why_in_the_words_of_the_rule_that_refuses_it()
    {
        var played = Played.Reported();

        One(Played.Ilka, played, Move.LiftHold).WhyNot.ShouldBe(played.Refusal(new HoldLifted()));
        One(Played.Ilka, played, Move.Cancel).WhyNot.ShouldBe("ilka may not do this; it takes the role dispatcher or lead.");
        One(Played.Ilka, played, Move.Close).WhyNot.ShouldBe(played.Refusal(new TicketClosed()));
        One(Played.Ilka, played, Move.Reopen).WhyNot.ShouldBe("ilka may not do this; it takes the role lead.");
        One(Played.Lioth, played, Move.Reopen).WhyNot.ShouldBe("T-1001 is open; there is nothing to reopen.");
    }

    [Fact]
    public void Work_at_the_machine_is_its_engineers_and_somebody_elses_ticket_says_whose_it_is()
    {
        var played = Played.Reported();
        One(Played.Tamsel, played, Move.Arrive).WhyNot.ShouldBe("Nobody is assigned yet; somebody takes it first.");

        played.Does(new EngineerAssigned("ilka"));

        One(Played.Ilka, played, Move.Arrive).May.ShouldBeTrue();
        One(Played.Tamsel, played, Move.Arrive).WhyNot.ShouldBe("T-1001 is with ilka; a dispatcher or a lead gives it to somebody else.");
        One(Played.Lioth, played, Move.Arrive).May.ShouldBeTrue();
    }

    [Fact]
    public void The_machine_is_asked_only_where_the_service_reaches_it_and_typing_is_always_there()
    {
        var played = Played.Reported();
        var alone = new Surroundings(Some.Model, Reachable: false);

        One(Played.Ilka, played, Move.TakeSnapshot).May.ShouldBeTrue();
        For(Played.Ilka, played, alone).First(m => m.Move == Move.TakeSnapshot).May.ShouldBeFalse();
        For(Played.Ilka, played, alone).First(m => m.Move == Move.TypeSnapshot).May.ShouldBeTrue();
    }

    [Fact]
    public void Two_parts_for_two_drives_are_each_issued_for_themselves()
    {
        var played = Played.Reported();
        played.Does(new EngineerAssigned("ilka"));
        played.Does(new SnapshotTaken(Some.Snapshot()));
        played.Does(new DrivesChosen([Some.Bad, "P8GOOD0003"]));
        played.Does(new PartReserved("C8NEWW0001", "Cindral C8", 8_000_000_000_000, "Stores"), Played.Sefa);
        played.Does(new PartReserved("C8NEWW0002", "Cindral C8", 8_000_000_000_000, "Stores"), Played.Sefa);
        played.Does(new PartIssued("C8NEWW0001", "ilka"), Played.Sefa);

        var issue = For(Played.Sefa, played).Where(m => m.Move == Move.IssuePart).ToList();

        issue.Select(m => (m.About, m.May)).ShouldBe([("C8NEWW0002", true)]);
    }

    [Fact]
    public void A_part_has_to_be_as_large_as_the_array_uses_and_the_form_says_so_before_anybody_types()
    {
        var played = Played.Reported();
        played.Does(new SnapshotTaken(Some.Snapshot()));

        var bytes = One(Played.Sefa, played, Move.ReservePart).Fields.Single(f => f.Name == "bytes");

        bytes.Value.ShouldBe("8000000000000");
        played
            .Refusal(new PartReserved(Some.New, "C8", 7_999_999_999_999, "Stores"), Played.Sefa)
            .ShouldContain("are needed for the array to hold what it holds now");
    }

    [Fact]
    public void The_drive_that_came_out_asks_who_agreed_that_its_data_leaves_until_it_was_wiped()
    {
        var played = Played.At("end");
        IEnumerable<string> FieldsOf(string say) =>
            For(Played.Ilka, played)
                .Single(m => m.Move == Move.OpenReturn && m.About == Some.Bad && m.Say == say)
                .Fields.Select(f => f.Name);

        FieldsOf("To its maker").ShouldBe(["reason", "to.name", "authorisation", "dueBy", "lateCost", "dataAgreedBy"]);
        FieldsOf("To stores").ShouldBe(["reason", "to.name", "dueBy", "dataAgreedBy"]);
        played.Does(new DriveWiped(Some.Bad, "Sanitize command"));
        FieldsOf("To stores").ShouldBe(["reason", "to.name", "dueBy"]);
    }

    [Fact]
    public void At_a_shut_gate_a_lead_may_overrule_and_an_engineer_reads_what_would_open_it()
    {
        var played = Played.WithSheet();
        for (var asked = 0; played.Step is { IsPassed: false } && asked < 40; asked++)
            played.Answers(played.Step.TakesText ? "FSC-1" : played.Step.Answers[0].Answer);
        var unmet = One(Played.Ilka, played, Move.PassStep).WhyNot;

        if (unmet is null)
            One(Played.Lioth, played, Move.OverruleStep).WhyNot.ShouldBe("Its condition holds: there is nothing to overrule.");
        else
            One(Played.Lioth, played, Move.OverruleStep).May.ShouldBeTrue();
        One(Played.Ilka, played, Move.OverruleStep).WhyNot.ShouldBe("ilka may not do this; it takes the role lead.");
    }
}
