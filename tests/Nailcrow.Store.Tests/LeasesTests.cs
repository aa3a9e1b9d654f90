using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;
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

    private async Task<ServiceProvider> BeginAsync(SetClock? clock = null)
    {
        var node = new ServiceCollection().NodeOn(_store, clock, clock);
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

        // Whoever comes second is given its share by and by.
        await Soon.IsAsync(() => Task.FromResult(IsShared(first, second) && Math.Abs(Has(first).Count - Has(second).Count) <= 1), Ct);

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
    public async Task A_node_whose_clock_was_set_wrong_does_nothing_and_writes_nothing_and_takes_part_again_once_it_is_right()
    {
        using var clock = new SetClock();
        var (set, other) = (await BeginAsync(clock), await BeginAsync());
        await Soon.IsAsync(() => Task.FromResult(IsShared(set, other) && Has(set).Count > 0), Ct);
        var ticket = await _store.OpenAsync();

        clock.Off = TimeSpan.FromHours(1);
        await Should.ThrowAsync<ClockOffException>(() =>
            set.Journal().WriteAsync(ticket, StoreInUse.Intent(new NoteWritten("An hour too early")), Ct)
        );
        await Soon.IsAsync(() => Task.FromResult(IsShared(other) && Has(set).Count == 0), Ct); // its share of the work is the others' now
        (await other.GetRequiredService<ILeases>().NodesAsync(Ct))
            .Select(n => n.TakesNoPart)
            .OfType<string>()
            .ShouldBe(["This node's clock is 3600 s ahead of the database's."]);
        (await other.Journal().WriteAsync(ticket, StoreInUse.Intent(new NoteWritten("In time")), Ct)).ShouldBeOfType<Written.Kept>();

        clock.Off = TimeSpan.Zero;
        await Soon.IsAsync(() => Task.FromResult(IsShared(set, other) && Has(set).Count > 0), Ct);
        (await set.Journal().WriteAsync(ticket, StoreInUse.Intent(new NoteWritten("Right again")), Ct)).ShouldBeOfType<Written.Kept>();
        (await _store.ReadAfreshAsync(ticket))
            .Arrived.Select(e => e.Body)
            .OfType<NoteWritten>()
            .Select(n => n.Text)
            .ShouldBe(["In time", "Right again"]);
        clock.Said.ShouldBe([
            "This node's clock is 3600 s ahead of the database's. It takes no part in the work, and says that it takes no calls, until its "
                + "clock is right",
            "This node's clock is right again; it takes part in the work and takes calls",
        ]);
    }

    /// <summary>A machine's clock that somebody sets, and what its node says of it.</summary>
    private sealed class SetClock : TimeProvider, ILoggerProvider, ILogger
    {
        private readonly System.Collections.Concurrent.ConcurrentQueue<string> _said = new();

        public TimeSpan Off { get; set; }

        public IEnumerable<string> Said => _said.Where(s => s.StartsWith("This node's clock", StringComparison.Ordinal));

        public override DateTimeOffset GetUtcNow() => base.GetUtcNow() + Off;

        public ILogger CreateLogger(string categoryName) => this;

        public IDisposable? BeginScope<TState>(TState state)
            where TState : notnull => null;

        public bool IsEnabled(LogLevel logLevel) => logLevel >= LogLevel.Information;

        public void Log<TState>(LogLevel level, EventId id, TState state, Exception? e, Func<TState, Exception?, string> told) =>
            _said.Enqueue(told(state, e));

        public void Dispose() { }
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
