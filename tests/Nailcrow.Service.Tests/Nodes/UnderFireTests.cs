using Nailcrow.Running;
using Nailcrow.Running.Fire;

namespace Nailcrow.Service.Tests.Nodes;

/// <summary>Three nodes while they are killed, put to sleep and cut off: nothing that was acknowledged is lost, and nothing is there twice.</summary>
[Takes(120)]
public sealed class UnderFireTests
{
    // Longer than a lease lasts, so that another has its work when it wakes.
    private static readonly TimeSpan Sleeps = TimeSpan.FromSeconds(10);

    private static readonly TimeSpan Hour = TimeSpan.FromHours(1);

    [Fact]
    public async Task Whatever_becomes_of_nodes_and_their_database_every_entry_that_was_acknowledged_is_there_once_and_every_alert_on_one_ticket()
    {
        await using var postgres = await ServerOfItsOwn.StartAsync();
        var database = await postgres.NewDatabaseAsync();
        using var line = new FrozenLine(database);
        List<RunningService> nodes =
        [
            await StartAsync(database),
            await StartAsync(line.Database),
            await StartAsync(database, givenTime: true),
        ];
        await nodes[0].FillAsync();
        var chaos = new Chaos(postgres, database, nodes, () => StartAsync(database));

        var outcome = await new UnderFire(postgres, database, nodes).RunAsync(
            new Load(Writers: 20, Listeners: 30, Alerts: 300, Machines: 20, Rebuilds: 3),
            async () =>
            {
                await chaos.KillAsync(0);
                await chaos.SleepAsync(1, Sleeps);
                await Chaos.DeadAsync(line, Sleeps);
                await nodes[2].PassesAsync(Hour);
                await chaos.CutAsync();
                await Task.Delay(Sleeps / 4);
                await chaos.KillAsync(1);
                await chaos.RestartDatabaseAsync();
                await chaos.KillAsync(0);
            },
            TestContext.Current.CancellationToken
        );

        outcome.Troubles.ShouldBeEmpty();
        outcome.Entries.ShouldBeGreaterThan(100);
        outcome.Heard.ShouldBeGreaterThan(1_000);
        outcome.Readings.ShouldBeGreaterThan(10);
        foreach (var node in nodes)
            await node.DisposeAsync();
    }

    private static Task<RunningService> StartAsync(string database, bool givenTime = false) =>
        RunningService.StartAsync(
            assembly: Built.Service,
            givenTime: givenTime,
            further: ["--Nailcrow:Database", database, "--Nailcrow:PasswordRounds", "1000", "--Nailcrow:ReadsAhead", "false"]
        );
}
