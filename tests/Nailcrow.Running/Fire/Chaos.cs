using System.Diagnostics;

namespace Nailcrow.Running.Fire;

/// <summary>What becomes of nodes and their database on bad days.</summary>
/// <param name="start">Starts a node in the place of one that was killed.</param>
public sealed class Chaos(RunningPostgres postgres, string database, List<RunningService> nodes, Func<Task<RunningService>> start)
{
    private static readonly TimeSpan DatabaseIsAway = TimeSpan.FromSeconds(3);

    /// <summary>As by SIGKILL; another comes in its place.</summary>
    public async Task KillAsync(int which)
    {
        await nodes[which].Process.KillAsync();
        nodes[which] = await start();
    }

    /// <summary>As by SIGSTOP and SIGCONT: it does not know that it slept.</summary>
    public async Task SleepAsync(int which, TimeSpan span)
    {
        await SignalAsync("STOP", nodes[which]);
        await Task.Delay(span);
        await SignalAsync("CONT", nodes[which]);
    }

    /// <summary>All connections at once.</summary>
    public Task CutAsync() =>
        postgres.AskAsync(
            database,
            "SELECT count(pg_terminate_backend(pid)) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()"
        );

    /// <summary>What a node says to its database, and hears from it, does not arrive, and neither of both is told.</summary>
    public static async Task DeadAsync(FrozenLine line, TimeSpan span)
    {
        line.Freeze();
        await Task.Delay(span);
        line.Thaw();
    }

    /// <summary>The server goes down, and comes up again where it was.</summary>
    public async Task RestartDatabaseAsync()
    {
        await postgres.StopAsync();
        await Task.Delay(DatabaseIsAway);
        await postgres.StartAgainAsync();
    }

    private static async Task SignalAsync(string signal, RunningService node)
    {
        using var kill = Process.Start("bash", ["-c", $"kill -{signal} {node.Process.Id}"]);
        await kill.WaitForExitAsync();
    }
}
