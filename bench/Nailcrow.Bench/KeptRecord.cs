using System.Diagnostics;
using System.Security.Cryptography;
using System.Text;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Client;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;
using Nailcrow.Store;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Bench;

/// <summary>A record of a million entries on a hundred thousand tickets: verified, told anew, sealed.</summary>
internal static class KeptRecord
{
    private const int Tickets = 100_000;
    private const int EntriesEach = 10;
    private const int Rounds = 5;

    public static async Task MeasureAsync()
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-record-").FullName;
        var file = Path.Combine(folder, "nailcrow.db");
        await using (
            var services = new ServiceCollection()
                .AddSingleton(TimeProvider.System)
                .AddLogging()
                .AddNailcrowStore(file)
                .AddSingleton<ISecretKeeper, NoSecrets>()
                .BuildServiceProvider()
        )
        {
            await services.GetRequiredService<Database>().MigrateAsync(CancellationToken.None);
            await FillAsync(services.GetRequiredService<TicketJournal>());
            var check = services.GetRequiredService<JournalCheck>();
            await Told.InTurnAsync(
                "verifying 1,000,000 entries",
                () =>
                    SecondsAsync(() =>
                        check.RunAsync(
                            null,
                            readToo: false,
                            t => throw new InvalidDataException(t.Sentence),
                            _ => { },
                            CancellationToken.None
                        )
                    ),
                () => Task.FromResult(Bare(file)),
                Rounds,
                "s",
                "at most 2"
            );
            Told.Plain(
                "  and reading, folding, lists too",
                await SecondsAsync(() =>
                    check.RunAsync(null, readToo: true, t => throw new InvalidDataException(t.Sentence), _ => { }, CancellationToken.None)
                ),
                "s",
                "(not asked)"
            );
            Told.Plain(
                "lists of 100,000 tickets told anew",
                Tickets / await SecondsAsync(() => services.GetRequiredService<Projections>().RebuildAsync(CancellationToken.None)),
                "tickets/s",
                "at least 5,000"
            );
            var seals = services.GetRequiredService<Seals>();
            Told.Plain(
                "the first seal over all of them",
                await SecondsAsync(() => seals.SealAsync(CancellationToken.None)),
                "s",
                "(not asked)"
            );
            await MoreAsync(services.GetRequiredService<TicketJournal>(), 10_000);
            Told.Plain("a seal 10,000 entries later", await SecondsAsync(() => seals.SealAsync(CancellationToken.None)), "s", "under 2");
        }
        await MemoryAsync(folder);
    }

    /// <summary>Over the interface, as an administrator does it, in a process of its own.</summary>
    private static async Task MemoryAsync(string folder)
    {
        await (await RunningService.StartAsync(folder, 60, Published.Service)).DisposeAsync(); // the first start proves the procedures
        await using var service = await RunningService.StartAsync(folder, 60, Published.Service);
        using var http = service.Http();
        http.Timeout = TimeSpan.FromMinutes(10);
        var admin = new NailcrowClient(http, TimeProvider.System);
        admin.UseToken((await admin.SignInAsync("admin", RunningService.Password, CancellationToken.None)).AccessToken);
        await admin.VerifyAsync(CancellationToken.None, new(RecordOnly: true));
        Told.Plain("memory of the service, verifying", StartAndMemory.ResidentMegabytes(service.Process.Id, "VmHWM"), "MB", "under 300");
        await admin.VerifyAsync(CancellationToken.None);
        Told.Plain("  reading everything as well", StartAndMemory.ResidentMegabytes(service.Process.Id, "VmHWM"), "MB", "(not asked)");
    }

    /// <summary>Reads the texts in order and hashes each: what nobody can do without who verifies.</summary>
    private static double Bare(string file)
    {
        var clock = Stopwatch.StartNew();
        using var connection = new SqliteConnection($"Data Source={file};Mode=ReadOnly");
        connection.Open();
        using var ask = connection.CreateCommand();
        ask.CommandText = "SELECT text FROM journal ORDER BY position";
        using var row = ask.ExecuteReader();
        Span<byte> hash = stackalloc byte[32];
        while (row.Read())
            SHA256.HashData(Encoding.UTF8.GetBytes(row.GetString(0)), hash);
        return clock.Elapsed.TotalSeconds;
    }

    internal static async Task FillAsync(TicketJournal journal)
    {
        foreach (var some in Enumerable.Range(0, Tickets).Chunk(2_000))
        {
            var numbers = await Task.WhenAll(
                some.Select(async i =>
                    (
                        (Written.Kept)
                            await journal.OpenAsync(
                                By(
                                    new FaultReported(
                                        $"FSC-{i:00000}",
                                        $"BRK12-{i:00000}",
                                        "Brackmere B12",
                                        "Corrin Records Trust",
                                        "Corrin Deep Archive",
                                        "Vault hall",
                                        JobKind.Fault,
                                        "Amber lamp",
                                        "2",
                                        $"P8BA{i:00000}Z"
                                    )
                                ),
                                CancellationToken.None
                            )
                    )
                        .Entry
                        .Ticket
                )
            );
            for (var nth = 1; nth < EntriesEach; nth++)
                await Task.WhenAll(
                    numbers.Select(n =>
                        journal.WriteAsync(
                            n,
                            By(
                                nth == 1
                                    ? new EngineerAssigned($"engineer{n % 2000}")
                                    : new NoteWritten($"Note {nth}: lamp amber, beeper silenced, key is with the porter.")
                            ),
                            CancellationToken.None
                        )
                    )
                );
        }
    }

    internal static Task MoreAsync(TicketJournal journal, int entries) =>
        Task.WhenAll(
            Enumerable
                .Range(0, entries)
                .Select(i => journal.WriteAsync(1001 + i * 7 % Tickets, By(new NoteWritten("One more")), CancellationToken.None))
        );

    internal static Intent By(EntryBody body) => By(body, DateTimeOffset.UtcNow);

    internal static Intent By(EntryBody body, DateTimeOffset at, Actor? actor = null) =>
        new(Guid.CreateVersion7(at), at, 0, actor ?? new Actor("dorrik", [Role.Dispatcher]), body);

    private static async Task<double> SecondsAsync(Func<Task> work)
    {
        var clock = Stopwatch.StartNew();
        await work();
        return clock.Elapsed.TotalSeconds;
    }

    internal sealed class NoSecrets : ISecretKeeper
    {
        public string Protect(string secret) => secret;

        public string? Open(string kept) => kept;
    }
}
