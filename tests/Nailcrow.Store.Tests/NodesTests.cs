using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Running;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Store.Tests;

/// <summary>Several services on one database: they write side by side, and it is one record.</summary>
public sealed class NodesTests : IAsyncLifetime
{
    private const int Nodes = 3;

    private readonly StoreInUse _store = new();
    private readonly List<ServiceProvider> _nodes = [];

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        await _store.InitializeAsync();
        _nodes.AddRange(Enumerable.Range(0, Nodes).Select(_ => new ServiceCollection().NodeOn(_store)));
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var node in _nodes)
            await node.DisposeAsync();
        await _store.DisposeAsync();
    }

    [Fact]
    public async Task What_may_be_answered_once_is_answered_once_on_whichever_node_and_also_after_a_restart()
    {
        var now = DateTimeOffset.UtcNow;
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 5 * Nodes)
                .Select(i => _nodes[i % Nodes].GetRequiredService<AnsweredOnce>().IsFirstAsync("asked", now, now.AddMinutes(5), Ct))
        );

        answers.Count(first => first).ShouldBe(1);
        await using var restarted = new ServiceCollection().NodeOn(_store);
        var again = restarted.GetRequiredService<AnsweredOnce>();
        (await again.IsFirstAsync("asked", now, now.AddMinutes(5), Ct)).ShouldBeFalse();
        (await again.IsFirstAsync("asked else", now, now.AddMinutes(5), Ct)).ShouldBeTrue();
        (await again.IsFirstAsync("asked", now.AddMinutes(6), now.AddMinutes(11), Ct)).ShouldBeTrue(
            "What is too old to be answered is not kept."
        );
    }

    [Fact]
    public async Task Whoever_resumes_from_a_position_has_skipped_nothing_whichever_nodes_write()
    {
        const int Each = 60;
        var tickets = new List<long>();
        for (var i = 0; i < Nodes * 2; i++)
            tickets.Add(await _store.OpenAsync(StoreInUse.Fault(asset: $"FSC-{i}")));
        var begin = await _store.Journal.LastPositionAsync(Ct);

        var writing = Task.WhenAll(
            tickets.SelectMany((ticket, i) => Enumerable.Range(0, Each).Select(n => WriteAsync(i % Nodes, ticket, n)))
        );
        var (heard, last) = (new List<JournalItem>(), begin);
        while (!writing.IsCompleted || (await _store.Journal.LastPositionAsync(Ct)) > last)
            foreach (var item in await _store.Journal.AfterAsync(last, 1_000, Ct))
            {
                heard.Add(item);
                last = item.Position;
            }
        await writing;

        heard.Select(h => h.Position).ShouldBe(heard.Select(h => h.Position).Order());
        heard
            .GroupBy(h => h.Ticket)
            .ToDictionary(g => g.Key, g => g.Select(h => h.Seq).ToList())
            .ShouldSatisfyAllConditions(
                all => all.Keys.Order().ShouldBe(tickets.Order()),
                all => all.Values.ShouldAllBe(seqs => seqs.SequenceEqual(Enumerable.Range(2, Each).Select(n => (long)n)))
            );
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task One_ticket_that_all_nodes_write_on_at_once_keeps_one_chain()
    {
        var ticket = await _store.OpenAsync();

        var written = await Task.WhenAll(Enumerable.Range(0, 120).Select(n => WriteAsync(n % Nodes, ticket, n)));

        written.Select(w => w.Entry.Seq).Order().ShouldBe(Enumerable.Range(2, 120).Select(n => (long)n));
        HashChain.FirstBroken((await _store.ReadAfreshAsync(ticket)).Arrived).ShouldBeNull();
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task Tickets_that_are_opened_on_all_nodes_at_once_have_numbers_of_their_own_without_a_gap()
    {
        var opened = await Task.WhenAll(
            Enumerable
                .Range(0, 60)
                .Select(async n =>
                    (Written.Kept)await _nodes[n % Nodes].Journal().OpenAsync(StoreInUse.Intent(StoreInUse.Fault(asset: $"FSC-{n}")), Ct)
                )
        );

        opened.Select(o => o.Entry.Ticket).Order().ShouldBe(Enumerable.Range(1001, 60).Select(n => (long)n));
    }

    [Fact]
    public async Task An_entry_that_is_sent_to_two_nodes_at_once_is_written_once()
    {
        var ticket = await _store.OpenAsync();
        foreach (var nth in Enumerable.Range(0, 20))
        {
            var intent = StoreInUse.Intent(new NoteWritten($"{nth}"));

            var both = await Task.WhenAll(_nodes.Select(n => n.Journal().WriteAsync(ticket, intent, Ct)));

            both.Cast<Written.Kept>().Select(k => k.Entry.Seq).ShouldBe(Enumerable.Repeat(nth + 2L, Nodes));
            both.Cast<Written.Kept>().Count(k => !k.Repeated).ShouldBe(1);
        }
    }

    [Fact]
    public async Task Whoever_waits_on_one_node_is_woken_by_what_another_writes_also_after_its_connection_was_cut()
    {
        Assert.SkipUnless(PostgresServer.IsTested, "A file is written by one process.");
        var (here, there) = (_nodes[0], _nodes[1]);
        var listening = here.GetServices<IHostedService>().ToList();
        foreach (var one in listening)
            await one.StartAsync(Ct);
        var news = here.GetRequiredService<JournalNews>();
        await news.NextErrand; // it listens from now on
        var ticket = await _store.OpenAsync();

        for (var nth = 0; nth < 3; nth++)
        {
            var next = news.Next;
            await there.Journal().WriteAsync(ticket, StoreInUse.Intent(new NoteWritten($"{nth}")), Ct);
            await next.WaitAsync(TimeSpan.FromMinutes(1), Ct);
            _store.Tamper(
                "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query LIKE 'LISTEN%' AND datname = current_database()"
            );
        }

        foreach (var one in listening)
            await one.StopAsync(Ct);
    }

    /// <summary>As a server does that is started anew, or that a node had wait too long in its turn.</summary>
    [Fact]
    public async Task Where_the_server_has_cut_all_connections_writers_do_not_hear_of_it_and_of_readers_no_more_than_one()
    {
        Assert.SkipUnless(PostgresServer.IsTested, "A file is at the end of no connection.");
        var ticket = await _store.OpenAsync();
        var ids = Enumerable.Range(0, 5).Select(_ => Guid.CreateVersion7()).ToList();
        foreach (var id in ids)
        {
            await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => _store.Journal.ReadAsync(ticket, Ct))); // several wait to be used again
            _store.Tamper(
                "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()"
            );
            (await _store.Journal.WriteAsync(ticket, StoreInUse.Intent(new NoteWritten("Kept"), id), Ct)).ShouldBeOfType<Written.Kept>();
            await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => _store.Journal.ReadAsync(ticket, Ct)));
        }

        (await _store.ReadAfreshAsync(ticket)).Arrived.Select(e => e.Id).Where(ids.Contains).ShouldBe(ids);
    }

    private async Task<Written.Kept> WriteAsync(int node, long ticket, int nth) =>
        (await _nodes[node].Journal().WriteAsync(ticket, StoreInUse.Intent(new NoteWritten($"{nth}")), Ct)).ShouldBeOfType<Written.Kept>();
}
