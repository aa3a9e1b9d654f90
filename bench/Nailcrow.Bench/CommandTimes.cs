using System.Diagnostics;
using System.Text.Json;
using Nailcrow.Client.Intake;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>The command compiled ahead of time, against a bare program compiled the same way.</summary>
internal static class CommandTimes
{
    private const int Rounds = 60;

    public static async Task MeasureAsync()
    {
        await BothAsync("--version", (Published.Command, ["--version"]), (Published.BareCommand, []), "at most 2", []);

        await using var service = await RunningService.StartPeopledAsync(assembly: Published.Service);
        var home = Directory.CreateTempSubdirectory("nailcrow-home-").FullName;
        var surroundings = new Dictionary<string, string>
        {
            ["NAILCROW_HOME"] = home,
            ["NAILCROW_SERVICE"] = service.Address.ToString(),
            ["NAILCROW_PASSWORD"] = RunningService.Password,
        };
        await RunAsync((Published.Command, ["sign-in", "ilka"]), surroundings);
        var ilka = await service.SignInAsync("ilka");
        for (var i = 0; i < 50; i++)
            await ilka.ReportAsync(new FaultAsk("FSC-0203", $"Fault {i}"), CancellationToken.None);
        var token =
            JsonDocument
                .Parse(await File.ReadAllTextAsync(Path.Combine(home, "sessions.json")))
                .RootElement.GetProperty("all")[0]
                .GetProperty("token")
                .GetString()
            ?? "";
        await BothAsync(
            "tickets --json",
            (Published.Command, ["tickets", "--json"]),
            (Published.BareCommand, [$"{service.Address}api/tickets?limit=50&ended=false", token]),
            "at most 3",
            surroundings
        );
    }

    private static async Task BothAsync(
        string what,
        (string Program, string[] Arguments) ours,
        (string Program, string[] Arguments) bare,
        string asked,
        Dictionary<string, string> surroundings
    )
    {
        var (oursTook, bareTook) = (new List<double>(), new List<double>());
        for (var round = 0; round < Rounds; round++)
        {
            bareTook.Add(await RunAsync(bare, surroundings));
            oursTook.Add(await RunAsync(ours, surroundings));
        }
        Told.Line($"{what}, median of {Rounds}", Told.Median(oursTook), Told.Median(bareTook), "ms", asked);
    }

    private static async Task<double> RunAsync((string Program, string[] Arguments) command, Dictionary<string, string> surroundings)
    {
        var start = new ProcessStartInfo(command.Program, command.Arguments) { RedirectStandardOutput = true };
        foreach (var (name, value) in surroundings)
            start.Environment[name] = value;
        var clock = Stopwatch.StartNew();
        using var process = Process.Start(start) ?? throw new InvalidOperationException($"{command.Program} did not start.");
        await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        return process.ExitCode == 0
            ? clock.Elapsed.TotalMilliseconds
            : throw new InvalidOperationException($"{command.Program} ended with {process.ExitCode}.");
    }
}
