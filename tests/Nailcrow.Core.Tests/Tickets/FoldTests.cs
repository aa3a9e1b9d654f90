using CsCheck;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Core.Tests.Tickets;

public class FoldTests
{
    private static readonly IReadOnlyList<Entry> Whole = WithCorrections();

    private static IReadOnlyList<Entry> WithCorrections()
    {
        var played = Played.At("end");
        var (arrived, issued) = (played.Entries.Last(e => e.Body is ArrivedOnSite), played.Entries.Last(e => e.Body is PartIssued));
        played.Arrives(new EntryCorrected(arrived.Id, "Without signal.", null, arrived.Happened.AddMinutes(-5)));
        played.Arrives(new EntryCorrected(issued.Id, "To her.", ((PartIssued)issued.Body) with { To = "tamsel" }));
        played.Arrives(new EntryCorrected(played.Entries[^1].Id, "To ilka after all."));
        return played.Entries;
    }

    /// <summary>What a ticket says, so that two can be compared whole: lists in records compare by reference.</summary>
    private static string Told(Ticket t) =>
        string.Join(
            "\n",
            t.Stage,
            t.Run?.Current,
            t.Swap.OutSerial,
            t.Swap.InSerial,
            t.Entries,
            string.Join(";", t.Custody.Moves),
            string.Join(";", t.Discrepancies),
            string.Join(";", t.Run?.Visits ?? []),
            string.Join(";", ClosingCondition.Of(t)),
            t.Before?.TakenAt,
            t.After?.TakenAt
        );

    [Fact]
    public void A_ticket_depends_on_its_set_of_entries_and_not_on_the_order_they_arrived_in() =>
        Gen.Shuffle(Enumerable.Range(0, Whole.Count).ToArray())
            .Sample(order => Told(Ticket.Fold(1001, order.Select(i => Whole[i]))).ShouldBe(Told(Ticket.Fold(1001, Whole))), iter: 60);

    [Fact]
    public void A_record_that_grew_entry_by_entry_tells_what_one_read_at_once_tells() =>
        Gen.Shuffle(Enumerable.Range(0, Whole.Count).ToArray())
            .Sample(
                order =>
                    Told(order.Aggregate(TicketRecord.Of(1001, []), (r, i) => r.With(Whole[i])).Ticket)
                        .ShouldBe(Told(Ticket.Fold(1001, Whole))),
                iter: 20
            );

    /// <summary>Each entry overtakes a few at most, as from devices that send in the same minute.</summary>
    [Fact]
    public void A_record_whose_entries_were_late_by_moments_tells_what_one_read_at_once_tells() =>
        Gen.Int[0, 30]
            .Array[Whole.Count]
            .Sample(
                late =>
                {
                    var record = TicketRecord.Of(1001, []);
                    var order = Enumerable.Range(0, Whole.Count).OrderBy(i => i + late[i]).ToList();
                    foreach (var (nth, i) in order.Index())
                    {
                        record = record.With(Whole[i]);
                        var all = Ticket.Fold(1001, order.Take(nth + 1).Select(o => Whole[o]));
                        Told(record.Ticket).ShouldBe(Told(all));
                    }
                },
                iter: 20
            );

    [Fact]
    public void What_comes_because_of_an_entry_that_was_put_right_meanwhile_counts_as_little_before_a_restart_as_after_it()
    {
        var played = Played.Reported();
        var look = played.Arrives(new NoteWritten("Looked at it"));
        played.Arrives(new EntryCorrected(look.Id, "It was another machine."));

        played.Arrives(new MachineChanged(1000, Some.Noon, "tamsel", ["Bay 2 has another drive."], look.Id));

        Told(played.Ticket).ShouldBe(Told(TicketRecord.Of(1001, played.Entries).Ticket));
        played.Ticket.Discrepancies.ShouldBeEmpty();
    }

    [Theory]
    [InlineData(0, "the last")]
    [InlineData(10, "one of the last")]
    public void Of_a_long_ticket_only_what_happened_since_is_told_again(int secondsLate, string when)
    {
        var record = TicketRecord.Of(1001, Enumerable.Range(0, 4_000).Select(i => Note(i)));

        var whole = Allocated(() => TicketRecord.Of(1001, record.Arrived));
        var one = Allocated(() => record.With(Note(4_000, secondsLate)));

        (one * 40).ShouldBeLessThan(whole, when);
    }

    // A second after the other, in order of their ids.
    private static Entry Note(int nth, int secondsLate = 0) =>
        Whole[0] with
        {
            Id = new(nth + 1, 0, 0, [0, 0, 0, 0, 0, 0, 0, 0]),
            Seq = nth + 1,
            At = Some.Noon.AddSeconds(nth - secondsLate),
            RecordedAt = Some.Noon.AddHours(2),
            Body = new NoteWritten($"{nth}"),
        };

    private static long Allocated(Action what)
    {
        what();
        var before = GC.GetAllocatedBytesForCurrentThread();
        what();
        return GC.GetAllocatedBytesForCurrentThread() - before;
    }

    [Fact]
    public void The_same_entry_twice_is_once() => Told(Ticket.Fold(1001, Whole.Concat(Whole))).ShouldBe(Told(Ticket.Fold(1001, Whole)));

    [Fact]
    public void A_clock_that_runs_ahead_is_questioned_and_the_fact_is_kept()
    {
        var played = Played.Reported();

        played.Arrives(new NoteWritten("Seen it"), at: played.Now.AddHours(3));

        played
            .Ticket.Discrepancies.Select(d => d.Sentence)
            .ShouldBe(["An entry says it happened 2 h 59 min after it was recorded; the sending device's clock was wrong."]);
    }

    [Fact]
    public void An_entry_is_told_at_the_time_it_happened_on_the_services_clock()
    {
        var entry = Whole[0] with { At = Some.Noon.AddHours(-2), ClockOffsetMs = 2 * 3600 * 1000 };

        entry.Happened.ShouldBe(Some.Noon);
    }

    [Fact]
    public void Facts_are_kept_even_after_closing_and_decisions_are_not()
    {
        var played = Played.Reported();
        played.Does(new TicketCancelled("Reported twice"), Played.Lioth);

        played.Refusal(new EngineerAssigned("ilka"), Played.Lioth).ShouldBe("T-1001 is cancelled; nothing more is decided on it.");
        played.Refusal(new NoteWritten("The lamp is green now")).ShouldBe("accepted");
    }

    [Theory]
    [InlineData("44", "ABCD1234", "There is no bay '44' on this appliance; its bays are 1, 2, 3, 4, 5, 6.")]
    [InlineData("2", "A?", "Serial 'A?' has '?'; a serial has letters, digits and dashes.")]
    public void What_is_no_record_at_all_is_refused(string bay, string serial, string reason) =>
        Played.WithSheet().Refusal(new DrivePulled(bay, serial)).ShouldBe(reason);

    [Fact]
    public void A_ticket_with_a_drive_moved_is_not_cancelled() =>
        Played
            .At("end")
            .Refusal(new TicketCancelled("No"), Played.Lioth)
            .ShouldBe("A drive has been moved; this ticket can be closed, not cancelled.");

    [Fact]
    public void Stores_may_issue_and_an_engineer_may_not() =>
        Played
            .Reported()
            .Refusal(new PartIssued(Some.New, "ilka"))
            .ShouldBe("ilka may not do this; it takes the role stores or dispatcher or lead.");

    [Fact]
    public void What_to_do_next_is_always_one_thing()
    {
        NextAction.Of(Played.Reported().Ticket).ShouldBe(new NextAction("dispatcher", "Assign an engineer, or take it.", Move.Take));
        NextAction
            .Of(Played.At("backup").Ticket)
            .ShouldBe(new NextAction("ilka", "Ask the customer if there is a backup of what is on vault.", Move.FollowRun));
        NextAction.Of(Played.At("snapshot-before").Ticket).Say.ShouldBe("There is no snapshot since you arrived; take one.");
        NextAction.Of(Played.At("not-rebuilding").Ticket).Say.ShouldBe("Go on: vault is not rebuilding now.");
        NextAction.Of(Played.At("joined").Ticket).Say.ShouldBe("Follow the rebuild. C8NEWW2286 is unclaimed, not yet a member.");
        NextAction
            .Of(Played.At("end").Ticket)
            .ShouldBe(new NextAction("ilka", $"Open a return for {Some.Bad}, which is with engineer ilka.", Move.OpenReturn));
    }
}
