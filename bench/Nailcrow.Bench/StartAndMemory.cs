using System.Diagnostics;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>From the process's start to its first ready answer, against a bare ASP.NET Core application; then memory when idle.</summary>
internal static class StartAndMemory
{
    private const int Rounds = 7;

    private static readonly TimeSpan Window = TimeSpan.FromSeconds(10);

    public static async Task MeasureAsync()
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-bench-").FullName;
        await (await RunningService.StartAsync(folder, 60, Published.Service)).DisposeAsync(); // the first start makes the database
        await Told.InTurnAsync(
            "start to ready",
            () =>
                ReadyAsync(
                    () =>
                        RunningProcess.Start(
                            Published.Service,
                            [
                                "--urls",
                                "http://127.0.0.1:0",
                                "--Nailcrow:Data",
                                Path.Combine(folder, "nailcrow.db"),
                                "--Nailcrow:Procedures",
                                Path.Combine(Built.Root, "procedures"),
                            ]
                        ),
                    "listens at.*?(http://127[.0-9]+:\\d+)"
                ),
            () => ReadyAsync(() => RunningProcess.Start(Published.BareWeb, ["--urls", "http://127.0.0.1:0"]), "listens at.*?(http://\\S+)"),
            Rounds,
            "ms",
            "at most 2.5"
        );
        await using var idle = await RunningService.StartAsync(folder, 60, Published.Service);
        await CalmAsync(idle.Process.Id);
        Told.Plain("resident memory, soon after the start", ResidentMegabytes(idle.Process.Id), "MB", "(not asked)");
        await Task.Delay(TimeSpan.FromMinutes(5));
        Told.Plain("resident memory, idle for five minutes", ResidentMegabytes(idle.Process.Id), "MB", "under 150");
    }

    /// <summary>What it does soon after a start is done: procedures are read and proved, which on a slow machine takes minutes.</summary>
    private static async Task CalmAsync(int process)
    {
        using var watched = Process.GetProcessById(process);
        var busy = TimeSpan.MaxValue;
        for (var patience = TimeSpan.FromMinutes(10); busy > TimeSpan.FromSeconds(0.2); patience -= Window)
        {
            if (patience < TimeSpan.Zero)
                throw new InvalidOperationException("It has not come to rest in ten minutes.");
            var before = watched.TotalProcessorTime;
            await Task.Delay(Window);
            watched.Refresh();
            busy = watched.TotalProcessorTime - before;
        }
    }

    private static async Task<double> ReadyAsync(Func<RunningProcess> start, string says)
    {
        var clock = Stopwatch.StartNew();
        await using var process = start();
        var heard = await process.HearsAsync(says);
        using var http = new HttpClient { BaseAddress = new Uri(heard.Groups[1].Value) };
        (await http.GetAsync("health/ready")).EnsureSuccessStatusCode();
        return clock.Elapsed.TotalMilliseconds;
    }

    /// <summary>VmRSS of a process, from the kernel; VmHWM where its peak is asked for.</summary>
    internal static double ResidentMegabytes(int process, string what = "VmRSS")
    {
        var line = File.ReadLines($"/proc/{process}/status").First(l => l.StartsWith($"{what}:", StringComparison.Ordinal));
        return double.Parse(line.Split(' ', StringSplitOptions.RemoveEmptyEntries)[1], System.Globalization.CultureInfo.InvariantCulture)
            / 1024;
    }
}
