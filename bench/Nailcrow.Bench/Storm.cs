using System.Diagnostics;
using System.Net.Sockets;
using System.Text;
using Microsoft.Data.Sqlite;
using Nailcrow.Client;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>A site loses power: 5,000 lines from 500 machines at once; and how many can be kept one after the other.</summary>
internal static class Storm
{
    private const int Machines = 500;
    private const int Lines = 5_000;
    private const int Sustained = 60_000;

    public static async Task MeasureAsync()
    {
        await using var service = await RunningService.StartPeopledAsync(assembly: Published.Service);
        var admin = await service.SignInAsync("admin");
        var model = (await admin.ApplianceAsync("FSC-0107", CancellationToken.None)).Model.Id;
        await admin.LoadAsync(
            new(
                [],
                [],
                [
                    .. Enumerable
                        .Range(0, Machines)
                        .Select(i => new Appliance(
                            $"STM-{i:000}",
                            $"STM{i}",
                            model,
                            "Corrin Deep Archive",
                            "Hall",
                            SendsAs: $"storm-{i}",
                            Arrays: [new("vault", ArrayLevel.Raid6, 6), new("desk", ArrayLevel.Raid5, 4)]
                        )),
                ],
                Rules: [new IntakeRule("offline", @"drive in bay (?<bay>\d+) went offline")]
            ),
            CancellationToken.None
        );
        await Task.Delay(3_000); // until the new senders count
        for (var i = 0; i < 200; i++)
            await PageAsync(admin); // until the compiler has done what it does while code runs
        var quiet = Told.Median(await Task.WhenAll(Enumerable.Range(0, 1).Select(async _ => (await SomeAsync(admin, 50)).Average())));

        var port = await service.SyslogPortAsync();
        var clock = Stopwatch.StartNew();
        var sending = SendAsync(port, Lines, Machines, "drive in bay {0} went offline");
        var during = new List<double>();
        while (await JoinedAsync(admin) < Lines && clock.Elapsed.TotalSeconds < 60)
            during.AddRange(await SomeAsync(admin, 5));
        await sending;
        var took = clock.Elapsed.TotalSeconds;
        var counts = (await admin.IntakeAsync(null, CancellationToken.None)).Counts;
        Told.Plain($"{Lines} events of {Machines} senders, all joined", took, "s", "under 10");
        Told.Plain("of them kept and joined", counts.GetValueOrDefault("joined"), "events", $"{Lines}: none lost");
        Told.Plain("tickets they were joined into", await TicketsAsync(admin), "tickets", $"at most {Machines}");
        Told.Line("first page meanwhile, median", Told.Median(during), quiet, "ms", "at most 2");

        var ours = await SustainedAsync(service, port, admin);
        Told.Line("events kept, each durable", ours, Bare(Sustained / 4, inOne: 1), "events/s", "at least 0.5");
        Told.Line("  beside rows in batches of 32", ours, Bare(Sustained, inOne: 32), "events/s", "(not asked)");
    }

    /// <summary>Lines that no rule understands: the way in and the log, without the joining.</summary>
    private static async Task<double> SustainedAsync(RunningService service, int port, NailcrowClient admin)
    {
        await SendAsync(port, 5_000, 32, "hum {0}");
        var before = await KeptAsync(admin);
        var clock = Stopwatch.StartNew();
        await SendAsync(port, Sustained, 32, "humming at bay {0}, nothing to see");
        while (await KeptAsync(admin) < before + Sustained && clock.Elapsed.TotalSeconds < 120)
            await Task.Delay(20);
        return Sustained / clock.Elapsed.TotalSeconds;
    }

    /// <summary>The same rows by the bare database, so many to a durable transaction.</summary>
    private static double Bare(int rows, int inOne)
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("nailcrow-bare-").FullName, "bare.db");
        using var connection = new SqliteConnection($"Data Source={file}");
        connection.Open();
        void Run(string sql)
        {
            using var one = connection.CreateCommand();
            one.CommandText = sql;
            one.ExecuteNonQuery();
        }
        Run(
            "PRAGMA journal_mode = WAL; CREATE TABLE intake (id TEXT PRIMARY KEY, app TEXT, asset TEXT, outcome "
                + "TEXT NOT NULL, pending TEXT, received_at INTEGER NOT NULL, rule TEXT, sender TEXT NOT NULL, text "
                + "TEXT NOT NULL, ticket INTEGER, via TEXT NOT NULL); CREATE INDEX o ON intake (outcome, received_at)"
        );
        using var insert = connection.CreateCommand();
        insert.CommandText =
            "INSERT INTO intake VALUES ($id, 'storage', 'STM-001', 'Unmatched', NULL, $at, NULL, '127.0.0.1', "
            + "'<131>1 2026-03-01T08:00:00Z storm-1 storage - - - humming at bay 3, nothing to see', NULL, "
            + "'syslog')";
        var (id, at) = (insert.Parameters.Add("$id", SqliteType.Text), insert.Parameters.Add("$at", SqliteType.Integer));
        var clock = Stopwatch.StartNew();
        for (var batch = 0; batch < rows / inOne; batch++)
        {
            using var transaction = connection.BeginTransaction();
            insert.Transaction = transaction;
            for (var i = 0; i < inOne; i++)
            {
                (id.Value, at.Value) = (Guid.CreateVersion7().ToString(), (long)batch * inOne + i);
                insert.ExecuteNonQuery();
            }
            transaction.Commit();
        }
        return rows / clock.Elapsed.TotalSeconds;
    }

    private static Task SendAsync(int port, int lines, int senders, string text) =>
        Task.WhenAll(
            Enumerable
                .Range(0, senders)
                .Select(async sender =>
                {
                    using var tcp = new TcpClient();
                    await tcp.ConnectAsync("127.0.0.1", port);
                    await using var stream = tcp.GetStream();
                    for (var i = sender; i < lines; i += senders)
                    {
                        var line = Encoding.UTF8.GetBytes(
                            $"<131>1 {DateTime.UtcNow:yyyy-MM-ddTHH:mm:ssZ} storm-{sender} storage - - - "
                                + $"{string.Format(System.Globalization.CultureInfo.InvariantCulture, text, i / senders % 4 + 1)}"
                        );
                        await stream.WriteAsync(Encoding.ASCII.GetBytes($"{line.Length} "));
                        await stream.WriteAsync(line);
                    }
                })
        );

    private static async Task<IReadOnlyList<double>> SomeAsync(NailcrowClient client, int times)
    {
        var took = new List<double>();
        for (var i = 0; i < times; i++)
            took.Add(await PageAsync(client));
        return took;
    }

    private static async Task<double> PageAsync(NailcrowClient client)
    {
        var clock = Stopwatch.StartNew();
        await client.TicketsAsync(new(Ended: false), CancellationToken.None);
        return clock.Elapsed.TotalMilliseconds;
    }

    private static async Task<int> JoinedAsync(NailcrowClient client) =>
        (await client.IntakeAsync("pending", CancellationToken.None)).Counts.GetValueOrDefault("joined");

    private static async Task<int> KeptAsync(NailcrowClient client) =>
        (await client.IntakeAsync("pending", CancellationToken.None)).Counts.Values.Sum();

    private static async Task<int> TicketsAsync(NailcrowClient client)
    {
        var (count, before) = (0, (long?)null);
        do
        {
            var page = await client.TicketsAsync(new(Ended: false, Before: before, Limit: 200), CancellationToken.None);
            (count, before) = (count + page.Tickets.Count, page.Next);
        } while (before is not null);
        return count;
    }
}
