using System.Collections.Concurrent;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Host;

public sealed class KilledTests
{
    private const int Kills = 8;
    private const int Writers = 12;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Nothing_that_was_acknowledged_is_missing_after_the_service_was_killed_in_the_middle_of_writes()
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-killed-").FullName;
        var acknowledged = new ConcurrentDictionary<Guid, string>();
        long ticket = 0;
        for (var kill = 0; kill < Kills; kill++)
        {
            await using var service = await RunningService.StartAsync(folder);
            if (ticket == 0)
                ticket = await FirstTicketAsync(service);
            await MissingAsync(service, ticket, acknowledged).ShouldBeAsync([]);
            await WriteUntilKilledAsync(service, ticket, acknowledged, after: TimeSpan.FromMilliseconds(150 + 90 * kill));
        }

        await using var last = await RunningService.StartAsync(folder);

        acknowledged.Count.ShouldBeGreaterThan(Kills * Writers);
        await MissingAsync(last, ticket, acknowledged).ShouldBeAsync([]);
        (await (await last.SignInAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
        await last.DisposeAsync();
        Directory.Delete(folder, recursive: true);
    }

    private static async Task<long> FirstTicketAsync(RunningService service)
    {
        var admin = await service.SignInAsync("admin");
        await service.LetInAsync("ilka", Core.People.Role.Engineer);
        var reference = System.Text.Json.JsonSerializer.Deserialize(
            await File.ReadAllTextAsync(Path.Combine(Built.Root, "demo", "reference.json"), Ct),
            ContractJson.Default.ReferenceData
        )!;
        await admin.LoadAsync(reference, Ct);
        return (await (await service.SignInAsync("ilka")).ReportAsync(new FaultAsk("FSC-0203", "Beeper"), Ct)).Ticket;
    }

    private static async Task WriteUntilKilledAsync(
        RunningService service,
        long ticket,
        ConcurrentDictionary<Guid, string> acknowledged,
        TimeSpan after
    )
    {
        var ilka = await service.SignInAsync("ilka");
        var before = acknowledged.Count;
        var writing = Enumerable
            .Range(0, Writers)
            .Select(async _ =>
            {
                try
                {
                    while (true)
                    {
                        var ask = new EntryAsk(new NoteWritten("Written while the power is failing"), Guid.CreateVersion7());
                        var receipt = await ilka.WriteAsync(ticket, ask, Ct);
                        acknowledged[receipt.Id] = receipt.Hash;
                    }
                }
                catch (HttpRequestException)
                {
                    // killed: whether the last one was kept is not known, and nobody was told that it was
                }
            })
            .ToList();
        // In the middle of writes: a service that is cold on a busy machine takes its time with the first of them.
        await Soon.IsAsync(() => Task.FromResult(acknowledged.Count > before + Writers || writing.TrueForAll(w => w.IsCompleted)), Ct);
        await Task.Delay(after, Ct); // at a moment nobody chose
        await service.Process.KillAsync();
        await Task.WhenAll(writing);
    }

    private static async Task<List<Guid>> MissingAsync(RunningService service, long ticket, ConcurrentDictionary<Guid, string> acknowledged)
    {
        var ilka = await service.SignInAsync("ilka");
        var kept = new Dictionary<Guid, string>();
        for (long? after = 0; after is { } at; )
        {
            var page = await ilka.JournalAsync(ticket, at, Ct);
            foreach (var entry in page.Entries)
                kept[entry.Id] = entry.Hash;
            after = page.Next;
        }
        return [.. acknowledged.Where(a => kept.GetValueOrDefault(a.Key) != a.Value).Select(a => a.Key)];
    }
}

internal static class Awaited
{
    public static async Task ShouldBeAsync<T>(this Task<List<T>> asked, List<T> expected) => (await asked).ShouldBe(expected);
}
