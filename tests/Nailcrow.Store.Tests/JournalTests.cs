using System.Data.Common;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Waiting;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Store.Tests;

public sealed class JournalTests(StoreInUse store) : IClassFixture<StoreInUse>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData("UPDATE journal SET text = '{}'", "The journal is append-only: entries are never changed.")]
    [InlineData("DELETE FROM journal", "The journal is append-only: entries are never removed.")]
    public async Task The_database_itself_refuses_to_change_what_was_written(string sql, string reason)
    {
        await store.OpenAsync();

        Should.Throw<DbException>(() => store.Tamper(sql)).Message.ShouldContain(reason);
    }

    [Fact]
    public async Task Many_people_writing_on_one_ticket_at_once_lose_nothing_and_keep_the_chain()
    {
        var ticket = await store.OpenAsync();

        var written = await Task.WhenAll(Enumerable.Range(0, 200).Select(i => store.WriteAsync(ticket, new NoteWritten($"note {i}"))));

        written.Select(w => w.Entry.Seq).Order().ShouldBe(Enumerable.Range(2, 200).Select(i => (long)i));
        var record = (await store.Journal.ReadAsync(ticket, Ct))!;
        HashChain.FirstBroken(record.Arrived).ShouldBeNull();
        record.Ticket.Entries.ShouldBe(201);
    }

    [Fact]
    public async Task Sending_an_entry_twice_is_sending_it_once()
    {
        var ticket = await store.OpenAsync();
        var intent = StoreInUse.Intent(new NoteWritten("Once"));

        var both = await Task.WhenAll(store.Journal.WriteAsync(ticket, intent, Ct), store.Journal.WriteAsync(ticket, intent, Ct));
        var later = await store.Journal.WriteAsync(ticket, intent, Ct);

        both.Append(later).Cast<Written.Kept>().Select(k => (k.Entry.Seq, k.Repeated)).Order().ShouldBe([(2, false), (2, true), (2, true)]);
    }

    [Fact]
    public async Task An_id_in_use_for_another_entry_is_refused_by_name()
    {
        var ticket = await store.OpenAsync();
        var id = Guid.CreateVersion7();
        await store.Journal.WriteAsync(ticket, StoreInUse.Intent(new NoteWritten("First"), id), Ct);

        var second = await store.Journal.WriteAsync(ticket, StoreInUse.Intent(new NoteWritten("Second"), id), Ct);

        second.ShouldBe(
            new Written.IdTaken(
                $"Entry id {id} is in use for another entry, {TicketNumber.Text(ticket)} number 2; make a new id for each entry."
            )
        );
    }

    [Fact]
    public async Task An_id_in_use_on_another_ticket_is_found_by_the_key_and_its_neighbours_are_written_all_the_same()
    {
        var (first, second) = (await store.OpenAsync(), await store.OpenAsync(StoreInUse.Fault(asset: "FSC-2")));
        var taken = (await store.WriteAsync(first, new NoteWritten("Taken"))).Entry.Id;

        var together = Enumerable
            .Range(0, 20)
            .Select(i => store.Journal.WriteAsync(second, StoreInUse.Intent(new NoteWritten($"{i}"), i == 7 ? taken : null), Ct))
            .ToList();
        var written = await Task.WhenAll(together);

        written
            .OfType<Written.IdTaken>()
            .Select(t => t.Reason)
            .ShouldBe([
                $"Entry id {taken} is in use for another entry, {TicketNumber.Text(first)} number 2; make a new id for each entry.",
            ]);
        (await store.Journal.ReadAsync(second, Ct))!.Head.ShouldBe(20);
    }

    [Fact]
    public async Task What_another_node_wrote_meanwhile_is_read_before_going_on()
    {
        var ticket = await store.OpenAsync();
        await using var other = new Microsoft.Extensions.DependencyInjection.ServiceCollection().NodeOn(store);

        await other.Journal().WriteAsync(ticket, StoreInUse.Intent(new NoteWritten("From the other node")), Ct);
        var mine = await store.WriteAsync(ticket, new NoteWritten("From this node"));

        mine.Entry.Seq.ShouldBe(3);
        HashChain.FirstBroken((await store.Journal.ReadAsync(ticket, Ct))!.Arrived).ShouldBeNull();
    }

    [Fact]
    public async Task Nobody_is_refused_for_what_another_node_has_changed_meanwhile()
    {
        var ticket = await store.OpenAsync();
        await store.WriteAsync(ticket, new PutOnHold("Snow"));
        await using var other = new Microsoft.Extensions.DependencyInjection.ServiceCollection().NodeOn(store);
        await other.Journal().WriteAsync(ticket, StoreInUse.Intent(new HoldLifted()), Ct);

        (await store.WriteAsync(ticket, new PutOnHold("Ice"))).Entry.Seq.ShouldBe(4);
    }

    [Fact]
    public async Task A_decision_that_is_refused_leaves_no_trace()
    {
        var ticket = await store.OpenAsync();

        (await store.Journal.WriteAsync(ticket, StoreInUse.Intent(new TicketClosed()), Ct)).ShouldBeOfType<Written.Declined>();

        (await store.Journal.ReadAsync(ticket, Ct))!.Head.ShouldBe(1);
    }

    [Fact]
    public async Task A_serial_that_another_ticket_left_elsewhere_is_noted_in_the_same_breath()
    {
        var (first, second) = (await store.OpenAsync(), await store.OpenAsync(StoreInUse.Fault(asset: "FSC-2")));
        await store.WriteAsync(first, new DriveInserted("4", "C8TWICE001"));

        await store.WriteAsync(second, new DriveInserted("1", "C8TWICE001"));

        (await store.Journal.ReadAsync(second, Ct))!
            .Ticket.Discrepancies.Select(d => d.Sentence)
            .ShouldBe([
                $"C8TWICE001 is also recorded with bay 4 of FSC-1, by {TicketNumber.Text(first)}. One drive is in one place: find out which record is wrong.",
            ]);
    }

    [Fact]
    public async Task A_listener_that_was_away_is_told_everything_after_where_it_was()
    {
        var ticket = await store.OpenAsync();
        var position = await store.Journal.LastPositionAsync(Ct);
        for (var i = 0; i < 3; i++)
            await store.WriteAsync(ticket, new NoteWritten($"{i}"));

        var missed = await store.Journal.AfterAsync(position, 100, Ct);

        missed.Where(m => m.Ticket == ticket).Select(m => m.Seq).ShouldBe([2L, 3L, 4L]);
    }
}
