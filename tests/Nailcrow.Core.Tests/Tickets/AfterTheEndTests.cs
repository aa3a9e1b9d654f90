using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Core.Tests.Tickets;

/// <summary>Closing is not the end: what comes late is told on the closed ticket, and a lead settles it or reopens it.</summary>
public class AfterTheEndTests
{
    private static Played Cancelled()
    {
        var played = Played.Reported();
        played.Now = played.Now.AddHours(4);
        played.Does(new TicketCancelled("The lamp was a reflection"), Played.Lioth);
        return played;
    }

    [Fact]
    public void What_was_seen_before_and_arrives_after_is_told_on_the_closed_ticket()
    {
        var played = Cancelled();

        played.Arrives(new DrivePulled("2", Some.Bad), at: Some.Noon.AddHours(1));

        played.Ticket.Stage.ShouldBe(Stage.Cancelled);
        played.Ticket.OpenAfterEnd?.Sentence.ShouldBe(
            "ilka recorded 'drive-pulled' after the ticket was cancelled; it happened at 2026-03-02 13:00 UTC. Say what it means, or reopen the ticket."
        );
        NextAction.Of(played.Ticket).Who.ShouldBe("lead");
    }

    [Fact]
    public void What_happens_after_the_end_is_told_as_well_and_a_note_is_only_a_note()
    {
        var played = Cancelled();
        played.Arrives(new NoteWritten("Keys are back"));
        played.Ticket.OpenAfterEnd.ShouldBeNull();

        played.Arrives(new DrivePulled("2", Some.Bad));

        played.Ticket.OpenAfterEnd.ShouldNotBeNull();
    }

    [Fact]
    public void Readings_that_go_on_after_the_end_are_told_once_until_somebody_has_looked()
    {
        var played = Cancelled();
        foreach (var percent in new[] { 10m, 20m, 30m })
            played.Arrives(new ReadingTaken("vault", Progress.Running, RebuildPhase.Rebuilding, "person", percent));

        played.Ticket.Discrepancies.Count.ShouldBe(1);
    }

    [Theory, InlineData(1), InlineData(20), InlineData(300)]
    public void What_happened_seconds_before_the_closing_and_arrived_after_it_was_not_known_to_whoever_closed(int seconds)
    {
        var played = Cancelled();

        played.Arrives(new DrivePulled("2", Some.Bad), at: played.Now.AddSeconds(-seconds));

        played.Ticket.OpenAfterEnd.ShouldNotBeNull();
    }

    [Fact]
    public void What_had_arrived_before_the_closing_is_not_late_however_slow_it_was()
    {
        var played = Played.Reported();
        played.Now = played.Now.AddHours(4);
        played.Arrives(new ReadingTaken("vault", Progress.Running, RebuildPhase.Rebuilding, "person", 10m), at: Some.Noon.AddHours(1));
        played.Does(new TicketCancelled("The lamp was a reflection"), Played.Lioth);

        played.Ticket.OpenAfterEnd.ShouldBeNull();
    }

    [Fact]
    public void It_says_the_same_whichever_arrives_first()
    {
        var (late, closing) = (Cancelled(), Cancelled());
        late.Arrives(new DrivePulled("2", Some.Bad), at: Some.Noon.AddHours(1));

        var shuffled = TicketRecord.Of(1001, late.Entries.Reverse());

        shuffled.Ticket.Discrepancies.Select(d => (d.Id, d.Sentence)).ShouldBe(late.Ticket.Discrepancies.Select(d => (d.Id, d.Sentence)));
        closing.Ticket.IsAtRest.ShouldBeTrue();
    }

    [Fact]
    public void A_lead_settles_it_or_makes_it_work_again_with_a_reason_and_nobody_else_does()
    {
        var played = Cancelled();
        played.Arrives(new DrivePulled("2", Some.Bad));
        var open = played.Ticket.OpenAfterEnd!.Id; // it was just told

        played.Refusal(new TicketReopened("It moved")).ShouldBe("ilka may not do this; it takes the role lead.");
        played.Refusal(new TicketReopened(" "), Played.Lioth).ShouldBe("Reopening takes a reason; whoever closed it reads it first.");
        played.Does(new DiscrepancySettled(open, "It was the other machine's"), Played.Lioth);
        played.Ticket.IsAtRest.ShouldBeTrue();
        played.Does(new TicketReopened("A drive was pulled after all"), Played.Lioth);

        (played.Ticket.IsEnded, played.Ticket.Reopenings.Single().Reason, played.Ticket.EndedAt).ShouldBe(
            (false, "A drive was pulled after all", null)
        );
        played.Refusal(new TicketReopened("Again"), Played.Lioth).ShouldBe("T-1001 is open; there is nothing to reopen.");
    }

    [Fact]
    public void Several_contradictions_of_one_entry_have_names_of_their_own_and_each_can_be_settled()
    {
        var played = Played.WithSheet();
        played.Does(new DrivePulled("3", "P8GOOD0003"));
        played.Does(new DriveInserted("4", "C8OTHER001")); // a wrong drive is out, another part, another bay

        var open = played.Ticket.Discrepancies.Where(d => d.IsOpen).Select(d => d.Id).ToList();
        open.Count.ShouldBeGreaterThan(1);
        open.Distinct().Count().ShouldBe(open.Count);
        foreach (var id in open)
            played.Does(new DiscrepancySettled(id, "Read again"), Played.Lioth);

        played.Ticket.Discrepancies.ShouldAllBe(d => !d.IsOpen);
    }
}
