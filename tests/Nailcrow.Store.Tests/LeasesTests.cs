using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Store.Tests;

/// <summary>Work over time is one node's, another's once that is gone, and never both's.</summary>
public sealed class LeasesTests : IAsyncLifetime
{
    private static readonly SharedWork[] All = Enum.GetValues<SharedWork>();

    private readonly StoreInUse _store = new();
    private readonly List<ServiceProvider> _nodes = [];

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        Assert.SkipUnless(PostgresServer.IsTested, "A file is one process's, and all its work is its own.");
        await _store.InitializeAsync();
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var node in _nodes)
            await EndAsync(node);
        await _store.DisposeAsync();
    }

    private async Task<ServiceProvider> BeginAsync()
    {
        var node = new ServiceCollection().NodeOn(_store);
        _nodes.Add(node);
        foreach (var service in node.GetServices<IHostedService>())
            await service.StartAsync(Ct);
        return node;
    }

    private static async Task EndAsync(ServiceProvider node)
    {
        foreach (var service in node.GetServices<IHostedService>())
            await service.StopAsync(CancellationToken.None);
        await node.DisposeAsync();
    }

    private static List<SharedWork> Has(ServiceProvider node) =>
        [.. All.Where(work => node.GetRequiredService<ILeases>().Of(work) is not null)];

    /// <summary>Each work is somebody's, once.</summary>
    private static bool IsShared(params ServiceProvider[] nodes) => nodes.SelectMany(Has).Order().SequenceEqual(All);

    [Fact]
    public async Task Nodes_share_the_work_and_whoever_goes_leaves_it_to_those_who_stay()
    {
        var (first, second) = (await BeginAsync(), await BeginAsync());

        await Soon.IsAsync(() => Task.FromResult(IsShared(first, second) && Has(first).Count > 0 && Has(second).Count > 0), Ct);
        Math.Abs(Has(first).Count - Has(second).Count).ShouldBeLessThanOrEqualTo(1);

        var third = await BeginAsync();
        await Soon.IsAsync(() => Task.FromResult(IsShared(first, second, third) && Has(third).Count > 0), Ct);

        _nodes.Remove(second);
        await EndAsync(second);
        await Soon.IsAsync(() => Task.FromResult(IsShared(first, third)), Ct);
    }

    [Fact]
    public async Task A_node_that_slept_while_its_work_was_taken_over_writes_nothing_more()
    {
        var ticket = await _store.OpenAsync();
        var node = await BeginAsync();
        await Soon.IsAsync(() => Task.FromResult(IsShared(node)), Ct);
        var lease = node.GetRequiredService<ILeases>().Of(SharedWork.FollowingRebuilds).ShouldNotBeNull();
        (await node.Journal().WriteAsync(ticket, StoreInUse.Intent(new NoteWritten("Mine")), Ct, lease)).ShouldBeOfType<Written.Kept>();

        // As it is where the node stood still: its lease has ended, and another has it, by a turn of its own.
        _store.Tamper("UPDATE lease SET node = gen_random_uuid(), turn = turn + 1, until = clock_timestamp() + interval '1 minute'");

        (
            await IsLostAsync(() => node.Journal().WriteAsync(ticket, StoreInUse.Intent(new NoteWritten("Mine still")), Ct, lease))
        ).ShouldBeTrue();
        var report = StoreInUse.Intent(StoreInUse.Fault(asset: "FSC-9"));
        (await IsLostAsync(() => node.Journal().OpenAsync(report, Ct, under: lease))).ShouldBeTrue();
        // What others write in the same breath is written.
        var beside = await Task.WhenAll(
            Enumerable.Range(0, 20).Select(n => node.Journal().WriteAsync(ticket, StoreInUse.Intent(new NoteWritten($"{n}")), Ct))
        );
        beside.ShouldAllBe(w => w is Written.Kept);
        (await _store.ReadAfreshAsync(ticket))
            .Arrived.Select(e => e.Body)
            .OfType<NoteWritten>()
            .ShouldNotContain(n => n.Text == "Mine still");
        await Soon.IsAsync(() => Task.FromResult(Has(node).Count == 0 && lease.Over.IsCancellationRequested), Ct);
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    private static async Task<bool> IsLostAsync(Func<Task> write)
    {
        try
        {
            await write();
            return false;
        }
        catch (LeaseLostException)
        {
            return true;
        }
    }

    [Fact]
    public async Task A_database_that_was_away_is_gone_on_with()
    {
        var node = await BeginAsync();
        await Soon.IsAsync(() => Task.FromResult(IsShared(node)), Ct);
        var ticket = await _store.OpenAsync();

        _store.Tamper(
            "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()"
        );
        _store.Tamper("UPDATE lease SET until = clock_timestamp()");

        await Soon.IsAsync(() => Task.FromResult(IsShared(node)), Ct);
        // And what it is told it has, it has: a turn of its own for each time.
        var lease = node.GetRequiredService<ILeases>().Of(SharedWork.Sealing).ShouldNotBeNull();
        await Soon.IsAsync(
            async () =>
                node.GetRequiredService<ILeases>().Of(SharedWork.Sealing) is { } now
                && await node.Journal().WriteAsync(ticket, StoreInUse.Intent(new NoteWritten("Again")), Ct, now) is Written.Kept,
            Ct
        );
        lease.Work.ShouldBe(SharedWork.Sealing);
    }

    [Fact]
    public async Task Two_nodes_that_open_a_ticket_of_one_machine_at_once_open_one_and_the_other_looks_again()
    {
        var (first, second) = (await BeginAsync(), await BeginAsync());

        for (var nth = 0; nth < 10; nth++)
        {
            var asset = $"FSC-{nth}";
            var both = await Task.WhenAll(
                new[] { first, second }.Select(node =>
                    node.Journal().OpenAsync(StoreInUse.Intent(StoreInUse.Fault(asset: asset)), Ct, newest: 0)
                )
            );

            var kept = both.OfType<Written.Kept>().ShouldHaveSingleItem();
            both.OfType<Written.Overtaken>().ShouldHaveSingleItem().By.ShouldBe(kept.Entry.Ticket);
        }
    }
}
