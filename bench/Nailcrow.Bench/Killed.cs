using System.Collections.Concurrent;
using Nailcrow.Client.Intake;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>The service is killed again and again in the middle of writes; every entry it has acknowledged has to be there.</summary>
internal static class Killed
{
    private const int Writers = 16;

    private static readonly int Kills = int.Parse(
        Environment.GetEnvironmentVariable("BENCH_KILLS") ?? "1000",
        System.Globalization.CultureInfo.InvariantCulture
    );

    public static async Task MeasureAsync()
    {
        var random = new Random(7);
        await using var first = await RunningService.StartPeopledAsync(assembly: Published.Service);
        var ilka = await first.SignInAsync("ilka");
        var tickets = new List<long>();
        for (var i = 0; i < Writers; i++)
            tickets.Add((await ilka.ReportAsync(new FaultAsk("FSC-0203", $"Fault {i}"), CancellationToken.None)).Ticket);
        var token = (await ilka.SignInAsync("ilka", RunningService.Password, CancellationToken.None)).AccessToken;
        var acknowledged = new ConcurrentDictionary<Guid, long>();
        await first.Process.KillAsync();
        for (var kill = 0; kill < Kills; kill++)
        {
            await using var service = await RunningService.StartAsync(first.Folder, 3600, Published.Service);
            var before = acknowledged.Count;
            var writing = tickets.Select(t => WriteAsync(service.Address, t, token, acknowledged)).ToList();
            while (acknowledged.Count == before && writing.Exists(w => !w.IsCompleted)) // a service that is cold takes its time with the first
                await Task.Delay(5);
            await Task.Delay(random.Next(400));
            await service.Process.KillAsync();
            await Task.WhenAll(writing);
        }
        await using var last = await RunningService.StartAsync(first.Folder, 3600, Published.Service);
        var kept = new HashSet<Guid>();
        var reader = await last.SignInAsync("ilka");
        foreach (var ticket in tickets)
            for (long? after = 0; after is { } at; )
            {
                var page = await reader.JournalAsync(ticket, at, CancellationToken.None);
                kept.UnionWith(page.Entries.Select(e => e.Id));
                after = page.Next;
            }
        Told.Plain($"killed {Kills} times, acknowledged", acknowledged.Count, "entries", "(what was asked of it)");
        Told.Plain("  of them missing", acknowledged.Keys.Count(id => !kept.Contains(id)), "entries", "0");
        Told.Plain(
            "  troubles that verify finds",
            (await (await last.SignInAsync("admin")).VerifyAsync(CancellationToken.None)).Troubles.Count,
            "troubles",
            "0"
        );
    }

    private static async Task WriteAsync(Uri service, long ticket, string token, ConcurrentDictionary<Guid, long> acknowledged)
    {
        try
        {
            await using var client = await LeanClient.ConnectAsync(service, $"/api/tickets/{ticket}/entries", token);
            while (true)
            {
                var id = Guid.CreateVersion7();
                await client.PostAsync($$"""{"body":{"kind":"note-written","text":"Written while the power is failing"},"id":"{{id}}"}""");
                acknowledged[id] = ticket;
            }
        }
        catch (Exception e) when (e is IOException or System.Net.Sockets.SocketException or InvalidOperationException)
        {
            // Killed: what became of the last one is not known, and nobody was told that it was kept.
        }
    }
}
