using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Running;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Journal;

namespace Nailcrow.Store.Tests.Record;

/// <summary>On a server the journal lies in parts by tickets' numbers; nobody who reads or writes is to notice.</summary>
public sealed class JournalPartsTests : IAsyncLifetime
{
    private readonly StoreInUse _store = new();

    public ValueTask InitializeAsync() => _store.InitializeAsync();

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Where_one_part_ends_the_next_is_there_and_tickets_of_both_are_one_record()
    {
        IsAboutTheServer();
        var first = await _store.OpenAsync();
        Ends(first + 2);
        await using var node = new ServiceCollection().NodeOn(_store); // one that knows of no part yet

        var opened = new List<long> { first };
        for (var i = 0; i < 4; i++)
            opened.Add(await OpenAsync(node.Journal(), $"FSC-{i + 2}"));
        foreach (var ticket in opened)
            await _store.WriteAsync(ticket, new NoteWritten($"Of {ticket}"));

        opened.ShouldBe(Enumerable.Range(0, 5).Select(i => first + i));
        var parts = Parts();
        parts["journal_first"].ShouldBe(4, "the first two tickets with two entries each");
        parts.Where(p => p.Key is not ("journal_first" or "journal_else")).Sum(p => p.Value).ShouldBe(6);
        parts["journal_else"].ShouldBe(0);
        parts.Count.ShouldBeGreaterThan(3, "one more is ahead");
        // Whoever resumes reads over parts in the order in which it was written.
        var heard = await _store.Journal.AfterAsync(0, 1000, Ct);
        heard.Select(h => h.Position).ShouldBe(heard.Select(h => h.Position).Order());
        heard.Where(h => h.Kind == "note-written").Select(h => h.Ticket).ShouldBe(opened);
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
        foreach (var ticket in opened)
            (await _store.ReadAfreshAsync(ticket)).Head.ShouldBe(2);
    }

    [Fact]
    public async Task An_id_is_on_one_ticket_only_whichever_part_that_lies_in()
    {
        IsAboutTheServer();
        var old = await _store.OpenAsync(StoreInUse.Fault(asset: "FSC-20"));
        Ends(old + 1);
        var id = Guid.CreateVersion7();
        await _store.Journal.WriteAsync(old, StoreInUse.Intent(new NoteWritten("Once"), id), Ct);
        await using var other = new ServiceCollection().NodeOn(_store);
        var next = await OpenAsync(other.Journal(), "FSC-21");

        var taken = await other.Journal().WriteAsync(next, StoreInUse.Intent(new NoteWritten("Once more"), id), Ct);

        taken.ShouldBeOfType<Written.IdTaken>().Reason.ShouldContain($"T-{old} number 2");
        (await _store.ReadAfreshAsync(next)).Head.ShouldBe(1);
        // What only went by the database, past the writer, is refused by that.
        var refused = Should.Throw<Exception>(() =>
            _store.Tamper(
                $"INSERT INTO journal (ticket, seq, id, at, recorded_at, by, kind, text, hash) "
                    + $"SELECT {next}, 9, id, at, recorded_at, by, kind, text, hash FROM journal WHERE id = '{id}'"
            )
        );
        refused.Message.ShouldContain("is on another ticket");
    }

    [Fact]
    public async Task A_part_that_cannot_be_made_now_keeps_nobody_from_writing()
    {
        IsAboutTheServer();
        var first = await _store.OpenAsync(StoreInUse.Fault(asset: "FSC-30"));
        Ends(first + 1);
        // Somebody reads what lies in no part for as long as they like.
        await using var reader = await _store.Get<IDbContextFactory<NailcrowDb>>().CreateDbContextAsync(Ct);
        await using var reading = await reader.Database.BeginTransactionAsync(Ct);
        await reader.Database.ExecuteSqlRawAsync("LOCK TABLE journal_else IN ACCESS SHARE MODE", Ct);
        await using var node = new ServiceCollection().NodeOn(_store);

        var next = await OpenAsync(node.Journal(), "FSC-31");

        next.ShouldBe(first + 1);
        Parts()["journal_else"].ShouldBe(1);
        await reading.RollbackAsync(Ct);
        await using var later = new ServiceCollection().NodeOn(_store);
        (await OpenAsync(later.Journal(), "FSC-32")).ShouldBe(first + 2);
        Parts()["journal_else"].ShouldBe(2, "tickets of one part lie together");
        Parts().Keys.ShouldContain("journal_from_100000", "and parts go on behind them");
        await _store.WriteAsync(next, new NoteWritten("And it goes on"));
        (await _store.ReadAfreshAsync(next)).Head.ShouldBe(2);
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("DELETE FROM {0}", "entries are never removed")]
    [InlineData("UPDATE {0} SET text = ''", "entries are never changed")]
    [InlineData("TRUNCATE {0}", "entries are never removed")]
    public async Task Nothing_is_changed_or_removed_by_the_name_of_a_part_either(string asked, string refused)
    {
        IsAboutTheServer();
        await _store.OpenAsync(StoreInUse.Fault(asset: $"FSC-4{asked.Length}"));
        var part = Parts().First(p => p.Value > 0).Key;

        var said = Should.Throw<Exception>(() =>
            _store.Tamper($"SET session_replication_role = replica; {string.Format(null, asked, part)}")
        );
        said.Message.ShouldContain(refused);

        // A guard that somebody took from one part is missed, and put back at the next start.
        _store.Tamper($"ALTER TABLE {part} DISABLE TRIGGER ALL");
        (await _store.VerifyAsync()).Troubles.ShouldNotBeEmpty();
        await _store.Get<Database>().MigrateAsync(Ct);
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
        Should.Throw<Exception>(() => _store.Tamper($"SET session_replication_role = replica; {string.Format(null, asked, part)}"));
    }

    [Fact]
    public async Task An_id_is_looked_for_by_an_index_however_little_there_was_when_one_was_first_looked_for()
    {
        IsAboutTheServer();
        const int Many = 20_000;
        var ticket = await _store.OpenAsync(StoreInUse.Fault(asset: "FSC-50"));
        await _store.WriteAsync(ticket, new NoteWritten("One"));
        _store.Tamper("ANALYZE"); // as the server does by itself now and then: that little is read soonest one by one
        for (var i = 0; i < 10; i++)
            await _store.WriteAsync(ticket, new NoteWritten($"{i}"));
        _store.Tamper(
            "INSERT INTO journal (ticket, seq, id, at, recorded_at, by, kind, text, hash) SELECT ticket, seq + 1000 * n, gen_random_uuid(), "
                + $"at, recorded_at, by, kind, text, hash FROM journal, generate_series(1, {Many}) n WHERE ticket = {ticket} AND seq = 1"
        );
        await Soon.IsAsync(() => Task.FromResult(Read().Written >= Many), Ct);
        var before = Read();

        for (var i = 0; i < 10; i++)
            await _store.WriteAsync(ticket, new NoteWritten($"And {i}"));

        await Soon.IsAsync(() => Task.FromResult(Read().Written >= before.Written + 10), Ct);
        (Read().OneByOne - before.OneByOne).ShouldBeLessThan(Many);
    }

    /// <summary>How many entries the server has written, and how many it went over because it had no better way.</summary>
    private (long Written, long OneByOne) Read()
    {
        var said = _store
            .Dump("(SELECT sum(n_tup_ins) AS a, sum(seq_tup_read) AS b FROM pg_stat_user_tables WHERE relname LIKE 'journal%') AS so_far")
            .Split('|');
        return (long.Parse(said[0]), long.Parse(said[1]));
    }

    private static void IsAboutTheServer() => Assert.SkipUnless(PostgresServer.IsTested, "A file lies in one part.");

    private static async Task<long> OpenAsync(TicketJournal journal, string asset) =>
        ((Written.Kept)await journal.OpenAsync(StoreInUse.Intent(StoreInUse.Fault(asset: asset)), Ct)).Entry.Ticket;

    /// <summary>The part that is written to ends before this ticket, as if it had had its hundred thousand.</summary>
    private void Ends(long ticket)
    {
        var last = Parts().Where(p => p.Key != "journal_else").MaxBy(p => p.Value).Key;
        _store.Tamper(
            $"""
            DO $$ DECLARE part record; beginning text; BEGIN
              FOR part IN SELECT inhrelid::regclass AS name, pg_get_expr(c.relpartbound, c.oid) AS bound FROM pg_inherits
                JOIN pg_class c ON c.oid = inhrelid WHERE inhparent = 'journal'::regclass AND inhrelid <> 'journal_else'::regclass LOOP
                EXECUTE format('ALTER TABLE journal DETACH PARTITION %s', part.name);
                IF part.name = '{last}'::regclass THEN
                  beginning := (regexp_match(part.bound, 'FROM \((.*?)\)'))[1];
                  EXECUTE format('ALTER TABLE journal ATTACH PARTITION %s FOR VALUES FROM (%s) TO ({ticket})', part.name, beginning);
                ELSE
                  EXECUTE format('DROP TABLE %s', part.name);
                END IF;
              END LOOP; END $$
            """
        );
    }

    /// <summary>Each part with how many entries lie in it.</summary>
    private Dictionary<string, int> Parts() =>
        _store
            .Dump("(SELECT inhrelid::regclass::text AS name, 0 AS nothing FROM pg_inherits WHERE inhparent = 'journal'::regclass) AS part")
            .Split('\n')
            .Select(line => line.Split('|')[0])
            .ToDictionary(name => name, name => _store.Dump(name).Split('\n', StringSplitOptions.RemoveEmptyEntries).Length);
}
