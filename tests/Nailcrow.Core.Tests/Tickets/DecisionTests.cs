using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Tests.Tickets;

public class DecisionTests
{
    [Fact]
    public void An_engineer_takes_a_ticket_and_only_a_dispatcher_moves_it()
    {
        var played = Played.Reported();

        played
            .Refusal(new EngineerAssigned("tamsel"))
            .ShouldBe("Only a dispatcher or a lead gives a ticket to somebody else; take it yourself as ilka.");
        played.Does(new EngineerAssigned("ilka"));
        played.Refusal(new EngineerAssigned("tamsel"), Played.Tamsel).ShouldBe("T-1001 is with ilka; ask a dispatcher to move it.");
        played.Refusal(new EngineerAssigned("tamsel"), new Actor("dorrik", [Role.Dispatcher])).ShouldBe("accepted");
    }

    [Fact]
    public void A_ticket_on_hold_waits_for_the_hold_to_end_whatever_its_stage()
    {
        var played = Played.At("pull");
        played.Does(new PutOnHold("The quarry gate is shut."));

        NextAction
            .Of(played.Ticket)
            .ShouldBe(new NextAction("dispatcher", "On hold: The quarry gate is shut. Lift the hold when that is over.", Move.LiftHold));
        played.Ticket.Stage.ShouldBe(Stage.OnSite);

        played.Does(new HoldLifted());
        NextAction.Of(played.Ticket).Who.ShouldBe("ilka");
    }

    [Fact]
    public void A_call_step_opens_when_a_lead_says_so_also_where_they_said_no_before()
    {
        var played = Played.At("backup");
        played.Answers("no");
        played.PassRefusal().ShouldBe("Call for help, and say what you see.");

        played.Does(new HelpCalled("No backup"));
        played.PassRefusal().ShouldBe("Waiting for a lead's answer. Pull nothing meanwhile.");
        played.Refusal(new HelpAnswered(true, "Go"), Played.Ilka).ShouldBe("ilka may not do this; it takes the role lead.");

        played.Does(new HelpAnswered(false, "Copy first."), Played.Lioth);
        played.Step?.Id.ShouldBe("no-backup"); // it ends here where nobody calls again

        played.Does(new HelpCalled("Copied now"));
        played.Does(new HelpAnswered(true, "Then go."), Played.Lioth);
        played.Passes();
        played.Step?.Id.ShouldBe("strap");
    }

    [Fact]
    public void A_discrepancy_is_settled_by_name_in_writing_and_not_twice()
    {
        var played = Played.At("mark-lamp");
        played.Arrives(new StepAnswered(played.Ticket.Sheet!.Id, "mark-software", "no"), Played.Tamsel);
        var id = played.Ticket.Discrepancies.Single().Id;

        played.Refusal(new DiscrepancySettled("nonsense", "x"), Played.Lioth).ShouldBe($"No open discrepancy 'nonsense' here; open: {id}.");
        played.Refusal(new DiscrepancySettled(id, ""), Played.Lioth).ShouldBe("Say how it was settled; the report shows it.");
        played.Does(new DiscrepancySettled(id, "Tamsel stood before another rack."), Played.Lioth);
        played.Refusal(new DiscrepancySettled(id, "Again"), Played.Lioth).ShouldBe($"No open discrepancy '{id}' here; open: none.");
    }

    [Fact]
    public void An_open_discrepancy_keeps_a_ticket_from_closing_whoever_asks()
    {
        var played = Played.At("end");
        played.Arrives(new DrivePulled("3", "P8GOOD0003"));
        var open = played.Ticket.Discrepancies.Single();

        played
            .Refusal(new TicketClosed(ClosedOtherwise.HandedOver, "They watch it"), Played.Lioth)
            .ShouldContain($"discrepancies: {open.Sentence} ({open.Id})");
    }

    [Fact]
    public void A_sheet_is_not_made_again_under_somebodys_hands()
    {
        var played = Played.At("pull");

        played.Refusal(new SheetCompiled(played.Ticket.Sheet!)).ShouldBe("A run is under way; finish it, or call for help on it.");
        Played
            .At("end")
            .Refusal(new SheetCompiled(played.Ticket.Sheet!))
            .ShouldBe("The swap on this ticket is done; a further drive gets a ticket of its own.");
    }

    [Fact]
    public void A_ticket_that_does_not_exist_takes_nothing_but_its_report()
    {
        Ruling.On(new Ticket(4242), new NoteWritten("x"), Played.Ilka, Some.Noon).ShouldBe(new Ruling.Refused("T-4242 does not exist."));
        Played
            .Reported()
            .Refusal(new FaultReported("FSC-1", "x", "x", "x", "x", "x", JobKind.Fault, "Again"))
            .ShouldBe("T-1001 already has its report; add what is new as evidence.");
    }

    [Theory]
    [InlineData("T-1042", 1042L, null)]
    [InlineData(" t-7 ", 7L, null)]
    [InlineData("1042", 1042L, null)]
    [InlineData("T-0", null, "'T-0' is not a ticket number; write T-1042 or 1042.")]
    [InlineData("T-10 42", null, "'T-10 42' is not a ticket number; write T-1042 or 1042.")]
    [InlineData("-5", null, "'-5' is not a ticket number; write T-1042 or 1042.")]
    public void A_ticket_number_is_read_as_people_write_it(string text, long? number, string? reason) =>
        TicketNumber.Parse(text).ShouldBe(number is { } n ? new Parsed<long>.Ok(n) : new Parsed<long>.Refused(reason!));
}
