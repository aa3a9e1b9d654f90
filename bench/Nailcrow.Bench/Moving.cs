using System.Diagnostics;
using System.Globalization;
using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Running;
using Nailcrow.Store;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Bench;

/// <summary>A record of a million entries goes to PostgreSQL while a service works on it: how long nobody can work.</summary>
internal static class Moving
{
    private const int Meanwhile = 10_000;

    public static async Task MeasureAsync()
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-moving-").FullName;
        var file = Path.Combine(folder, "nailcrow.db");
        await using var postgres = await RunningPostgres.StartAsync(durable: true);
        var server = await postgres.NewDatabaseAsync();
        await WritingAsync(file, KeptRecord.FillAsync);
        await using (var service = await RunningService.StartAsync(folder, 60, Published.Service))
        {
            Told.Plain("copied while it is worked on", await MoveAsync(file, server, expected: 3), "s", "(not asked)");
            await service.Process.StopAsync();
        }
        await WritingAsync(file, journal => KeptRecord.MoreAsync(journal, Meanwhile));
        Told.Plain("the rest, while nobody works", await MoveAsync(file, server, expected: 0), "s", "under 60");
        Told.Plain("and back to a file, all at once", await MoveAsync(server, $"{file}.back", expected: 0), "s", "(not asked)");
        Directory.Delete(folder, recursive: true);
    }

    private static async Task WritingAsync(string file, Func<TicketJournal, Task> write)
    {
        await using var services = new ServiceCollection()
            .AddSingleton(TimeProvider.System)
            .AddLogging()
            .AddNailcrowStore(file)
            .AddSingleton<ISecretKeeper, KeptRecord.NoSecrets>()
            .BuildServiceProvider();
        await services.GetRequiredService<Database>().MigrateAsync(CancellationToken.None);
        await write(services.GetRequiredService<TicketJournal>());
    }

    private static async Task<double> MoveAsync(string from, string to, int expected)
    {
        var clock = Stopwatch.StartNew();
        using var process =
            Process.Start(
                new ProcessStartInfo("dotnet", [Published.Service, "move", "--from", from, "--to", to]) { RedirectStandardOutput = true }
            ) ?? throw new InvalidOperationException("dotnet did not start.");
        while (await process.StandardOutput.ReadLineAsync() is { } line)
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"  {clock.Elapsed.TotalSeconds, 7:0.0} s  {line}"));
        await process.WaitForExitAsync();
        return process.ExitCode == expected
            ? clock.Elapsed.TotalSeconds
            : throw new InvalidDataException($"It ended with {process.ExitCode}, and {expected} was expected.");
    }
}
