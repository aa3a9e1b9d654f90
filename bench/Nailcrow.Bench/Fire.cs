using System.Diagnostics;
using Nailcrow.Running;
using Nailcrow.Running.Fire;

namespace Nailcrow.Bench;

/// <summary>Three nodes under a full load while they are killed, put to sleep and cut off: what is lost, what is there twice.</summary>
internal static class Fire
{
    private const int Rounds = 3;

    private static readonly TimeSpan Sleeps = TimeSpan.FromSeconds(20);

    public static async Task MeasureAsync()
    {
        await using var postgres = await RunningPostgres.StartAsync(durable: true);
        var database = await postgres.NewDatabaseAsync();
        var nodes = new List<RunningService>();
        using var line = new FrozenLine(database);
        foreach (var way in new[] { database, database, line.Database })
            nodes.Add(await StartAsync(way));
        await nodes[0].FillAsync();
        var chaos = new Chaos(postgres, database, nodes, () => StartAsync(database));
        var clock = Stopwatch.StartNew();
        var outcome = await new UnderFire(postgres, database, nodes).RunAsync(
            new Load(Writers: 200, Listeners: 300, Alerts: 5_000, Machines: 500, Rebuilds: 10),
            async () =>
            {
                for (var round = 0; round < Rounds; round++)
                {
                    await DoneAsync("a node is killed", () => chaos.KillAsync(round));
                    await DoneAsync("another sleeps", () => chaos.SleepAsync((round + 1) % nodes.Count, Sleeps));
                    await DoneAsync("a line goes dead", () => Chaos.DeadAsync(line, Sleeps)); // the third one's, until that is killed
                    await DoneAsync("all connections are cut", chaos.CutAsync);
                    await Task.Delay(TimeSpan.FromSeconds(5));
                    await DoneAsync("the database goes down and comes back", chaos.RestartDatabaseAsync);
                    await Task.Delay(TimeSpan.FromSeconds(5));
                }
            },
            CancellationToken.None
        );
        Told.Plain("it took", clock.Elapsed.TotalSeconds, "s", "(not asked)");
        Told.Plain("entries acknowledged", outcome.Entries, "entries", "(what was asked of them)");
        Told.Plain("alerts acknowledged", outcome.Alerts, "alerts", "(what was asked of them)");
        Told.Plain("entries heard by 300 listeners", outcome.Heard, "entries", "(what was asked of them)");
        Told.Plain("  times they were cut off", outcome.Cuts, "times", "(not asked)");
        Told.Plain("readings of 10 rebuilds", outcome.Readings, "readings", "each higher than the one before");
        Told.Plain("lost, twice, out of order, broken", outcome.Troubles.Count, "troubles", "0");
        foreach (var trouble in outcome.Troubles.Take(10))
            Console.WriteLine($"  {trouble}");
        foreach (var node in nodes)
            await node.DisposeAsync();

        async Task DoneAsync(string what, Func<Task> work)
        {
            Console.WriteLine(FormattableString.Invariant($"  {clock.Elapsed.TotalSeconds, 6:0} s  {what}"));
            await work();
        }
    }

    private static Task<RunningService> StartAsync(string database) =>
        RunningService.StartAsync(
            assembly: Published.Service,
            further: ["--Nailcrow:Database", database, "--Nailcrow:PasswordRounds", "1000"]
        );
}
