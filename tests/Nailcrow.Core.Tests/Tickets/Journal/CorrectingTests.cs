using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Core.Tests.Tickets.Journal;

/// <summary>What was recorded by mistake is put right by an entry, and everything tells what was so.</summary>
public class CorrectingTests
{
    private static string Told(Ticket t) =>
        string.Join(
            "\n",
            t.Stage,
            t.Run?.Current,
            t.ArrivedAt,
            t.SignedOffBy,
            string.Join(";", t.Custody.Moves),
            string.Join(";", t.Discrepancies),
            string.Join(";", t.Run?.Visits ?? []),
            string.Join(";", t.Parts),
            string.Join(";", t.Evidence),
            string.Join(";", ClosingCondition.Of(t))
        );

    [Fact]
    public void Whatever_is_put_right_and_that_taken_back_is_as_it_was()
    {
        var played = Played.At("end");
        var before = Told(played.Ticket);
        foreach (var entry in played.Entries.ToList())
        {
            var struck = played.Arrives(new EntryCorrected(entry.Id, "It was not so."), Played.Lioth);
            played.Arrives(new EntryCorrected(struck.Id, "It was so after all."), Played.Lioth);

            Told(played.Ticket).ShouldBe(before, $"after {entry.Body.Told()}");
        }
    }

    [Fact]
    public void Only_the_last_of_several_corrections_of_one_entry_counts()
    {
        var played = Played.At("end");
        var issued = played.Entries.Last(e => e.Body is PartIssued);
        var part = ((PartIssued)issued.Body).Serial;
        foreach (var who in new[] { "tamsel", "wenna", "brannoc" })
            played.Arrives(new EntryCorrected(issued.Id, "To somebody else.", new PartIssued(part, who)), Played.Lioth);

        played.Ticket.Parts.Single().IssuedTo.ShouldBe("brannoc");
        played.Record.AsItCounts().Count(e => e.Body is PartIssued).ShouldBe(1);
        played.Record.Arrived.Single(e => e.Id == issued.Id).Body.ShouldBe(issued.Body); // as it was written
    }

    [Fact]
    public void What_may_be_said_otherwise_is_offered_with_what_it_says_and_where_it_came_from_stands()
    {
        var played = Played.At("end");
        var issued = played.Entries.Last(e => e.Body is PartIssued);

        var right = CorrectionsOffered.On(played.Record, issued, Played.Lioth).Single(m => m.Move == Move.PutRight);
        right.Fields.Select(f => (f.Name, f.Value)).ShouldBe([("instead.serial", Some.New), ("instead.to", "ilka"), ("because", null)]);

        var report = CorrectionsOffered.On(played.Record, played.Entries[0], Played.Lioth);
        report.Single(m => m.Move == Move.NotSo).WhyNot.ShouldStartWith("A ticket begins with its report.");
        report.Single(m => m.Move == Move.PutRight).Fields.Select(f => f.Name).ShouldNotContain("instead.asset");
    }

    /// <summary>The last correction is the one that counts, so each that is offered says again what the ones before it did.</summary>
    [Fact]
    public void What_was_put_right_before_goes_along_with_what_is_put_right_next()
    {
        var played = Played.At("end");
        var issued = played.Entries.Last(e => e.Body is PartIssued);
        EntryCorrected Offered(Move way) =>
            (EntryCorrected)CorrectionsOffered.On(played.Record, issued, Played.Lioth).Single(m => m.Move == way).Body!;
        var earlier = issued.Happened.AddMinutes(-1);

        Offered(Move.PutRight).HappenedAt.ShouldBeNull();
        played.Arrives(new EntryCorrected(issued.Id, "A minute before.", null, earlier), Played.Lioth);
        Offered(Move.PutRight).HappenedAt.ShouldBe(earlier);

        var other = new PartIssued(Some.New, "tamsel");
        played.Arrives(Offered(Move.PutRight) with { Because = "To tamsel.", Instead = other }, Played.Lioth);
        (Offered(Move.OtherTime).Instead, Offered(Move.OtherTime).HappenedAt).ShouldBe((other, earlier));
    }

    [Fact]
    public void Whoever_wrote_it_or_a_lead_puts_it_right_and_nobody_what_was_decided()
    {
        var played = Played.At("end");
        var arrived = played.Entries.Last(e => e.Body is ArrivedOnSite);
        var assigned = played.Entries.Last(e => e.Body is Core.Tickets.Planning.EngineerAssigned);

        Correctable.WhyNot(arrived, Played.Lioth).ShouldBeNull();
        Correctable.WhyNot(arrived, new Actor("tamsel", [Role.Engineer])).ShouldBe("ilka wrote it: ilka or a lead puts it right.");
        Correctable.WhyNot(assigned, Played.Lioth).ShouldStartWith("'engineer-assigned' was decided");
    }

    [Fact]
    public void An_answer_is_put_right_only_where_the_sheet_would_have_gone_the_same_way()
    {
        var played = Played.At("end");
        foreach (var entry in played.Entries.Where(e => e.Body is StepAnswered).ToList())
        {
            var was = (StepAnswered)entry.Body;
            var correction = new EntryCorrected(entry.Id, "Misheard.", was with { Answer = "no" });
            var intent = new Intent(Guid.CreateVersion7(), played.Now, 0, Played.Lioth, correction);
            var refused = Ruling.On(played.Record, intent, played.Now) is not Ruling.Accepted;
            var becomes = played.Record.With(played.Record.Next(intent, played.Now)).Ticket;

            if (!refused)
                becomes.Run!.Visits.Select(v => v.Step).ShouldBe(played.Ticket.Run!.Visits.Select(v => v.Step), was.Step); // it is at its end
        }
    }
}
