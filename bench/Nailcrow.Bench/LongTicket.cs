using System.Diagnostics;
using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Client;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Running;
using Nailcrow.Store;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Bench;

/// <summary>One ticket of a hundred thousand readings: what the next one costs, and what its answer weighs.</summary>
internal static class LongTicket
{
    private const int Readings = 100_000;
    private const int AtOnce = 2_000;

    /// <summary>The service hears of each reading as it is taken, as it does when it asks the machine itself.</summary>
    private sealed class SetClock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = DateTimeOffset.UtcNow.AddMilliseconds(-Readings);

        public override DateTimeOffset GetUtcNow() => Now;
    }

    private static readonly SetClock Clock = new();

    public static async Task MeasureAsync()
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-long-").FullName;
        var longest = 0L;
        await using (
            var services = new ServiceCollection()
                .AddSingleton<TimeProvider>(Clock)
                .AddLogging()
                .AddNailcrowStore(Path.Combine(folder, "nailcrow.db"))
                .AddSingleton<ISecretKeeper, KeptRecord.NoSecrets>()
                .BuildServiceProvider()
        )
        {
            await services.GetRequiredService<Database>().MigrateAsync(CancellationToken.None);
            longest = await LongAsync(services.GetRequiredService<TicketJournal>());
        }
        await using var service = await RunningService.StartAsync(folder, 60, Published.Service);
        using var http = service.Http();
        await AnswerAsync(http, new(http, TimeProvider.System), longest);
    }

    /// <summary>A rebuild that was read every few seconds for a week.</summary>
    private static async Task<long> LongAsync(TicketJournal journal)
    {
        // Each happened after the one before, as readings do: one that came late would have the whole ticket told again.
        var from = Clock.Now;
        var opened = (Written.Kept)
            await journal.OpenAsync(
                KeptRecord.By(
                    new FaultReported(
                        "FSC-LONG",
                        "BRK12-L",
                        "Brackmere B12",
                        "Corrin Records Trust",
                        "Corrin Deep Archive",
                        "Vault hall",
                        JobKind.Fault,
                        "Amber lamp",
                        "2",
                        "P8BALONG1"
                    ),
                    from
                ),
                CancellationToken.None
            );
        List<double> took = [];
        foreach (var some in Enumerable.Range(0, Readings).Chunk(AtOnce))
        {
            Clock.Now = from.AddMilliseconds(some[^1] + 1);
            var clock = Stopwatch.StartNew();
            await Task.WhenAll(
                some.Select(i =>
                    journal.WriteAsync(
                        opened.Entry.Ticket,
                        KeptRecord.By(
                            new ReadingTaken(
                                "vault",
                                Progress.Running,
                                RebuildPhase.Rebuilding,
                                "machine",
                                Math.Round(100m * i / Readings, 1)
                            ),
                            from.AddMilliseconds(i + 1),
                            Actor.Service
                        ),
                        CancellationToken.None
                    )
                )
            );
            took.Add(clock.Elapsed.TotalSeconds);
        }
        Told.Line("2,000 readings, at the end and at the beginning", took[^5..].Average(), took[1..6].Average(), "s", "at most 2");
        return opened.Entry.Ticket;
    }

    private static async Task AnswerAsync(HttpClient http, NailcrowClient admin, long ticket)
    {
        http.DefaultRequestHeaders.Authorization = new(
            "Bearer",
            (await admin.SignInAsync("admin", RunningService.Password, CancellationToken.None)).AccessToken
        );
        var clock = Stopwatch.StartNew();
        var answer = await http.GetByteArrayAsync($"api/tickets/{ticket}");
        Told.Plain("a ticket with 100,000 readings, answered first", clock.Elapsed.TotalMilliseconds, "ms", "(not asked)");
        clock.Restart();
        await http.GetByteArrayAsync($"api/tickets/{ticket}");
        Told.Plain("  and again", clock.Elapsed.TotalMilliseconds, "ms", "(not asked)");
        Told.Plain("  its answer", answer.Length / 1000.0, "kB", "under 300");
    }
}
