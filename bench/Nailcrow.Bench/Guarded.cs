using System.Diagnostics;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text;
using Microsoft.Data.Sqlite;
using Nailcrow.Client;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>
/// What others do must not slow those down who are in: a hundred sign in at once, one writes a rule that is held against all that nobody
/// understood, one opens as many connections as they can. Each against the same entries in quiet.
/// </summary>
internal static class Guarded
{
    private const int AtOnce = 100;
    private const int KeptLines = 3_000;
    private const int Connections = 1_000;
    private const int Rounds = 7;
    private const int Entries = 60;

    public static async Task MeasureAsync()
    {
        await using var service = await RunningService.StartPeopledAsync(assembly: Published.Service);
        var (ilka, admin) = (await service.SignInAsync("ilka"), await service.SignInAsync("admin"));
        var ticket = (await ilka.ReportAsync(new("FSC-0203", "Amber lamp"), CancellationToken.None)).Ticket;
        await EntriesAsync(ilka, ticket, 300); // until the compiler has done what it does while code runs

        await BesideAsync($"an entry while {AtOnce} sign in at once", ilka, ticket, ct => SignInsAsync(service, ct));
        await BesideAsync($"an entry while {AtOnce} guess", ilka, ticket, ct => GuessesAsync(service, ct));
        await HostileAsync(service, ilka, ticket);
        await RuleAsync(service, admin);
    }

    private static async Task BesideAsync(string what, NailcrowClient who, long ticket, Func<CancellationToken, Task> beside) =>
        await Told.InTurnAsync(
            what,
            async () =>
            {
                using var over = new CancellationTokenSource();
                var others = beside(over.Token);
                var took = await EntriesAsync(who, ticket, Entries);
                await over.CancelAsync();
                await others;
                return took;
            },
            () => EntriesAsync(who, ticket, Entries),
            Rounds,
            "ms",
            "at most 2"
        );

    /// <summary>The middle one of so many entries, one after the other, in milliseconds.</summary>
    private static async Task<double> EntriesAsync(NailcrowClient who, long ticket, int times)
    {
        var each = new List<double>();
        for (var i = 0; i < times; i++)
        {
            var watch = Stopwatch.StartNew();
            await who.WriteAsync(ticket, new NoteWritten($"Note {i}"), CancellationToken.None);
            each.Add(watch.Elapsed.TotalMilliseconds);
        }
        return Told.Median(each);
    }

    private static Task SignInsAsync(RunningService service, CancellationToken over) =>
        ManyAsync(service, over, _ => ("tamsel", RunningService.Password));

    private static Task GuessesAsync(RunningService service, CancellationToken over) =>
        ManyAsync(service, over, i => ($"nobody-{i}", "not-the-right-one"));

    private static Task ManyAsync(RunningService service, CancellationToken over, Func<int, (string Name, string Password)> who) =>
        Task.WhenAll(
            Enumerable
                .Range(0, AtOnce)
                .Select(async i =>
                {
                    using var http = service.Http();
                    while (!over.IsCancellationRequested)
                    {
                        var (name, password) = who(i);
                        using var answer = await http.PostAsJsonAsync("api/sign-in", new { name, password }, CancellationToken.None);
                        if ((int)answer.StatusCode == 429)
                            await Task.Delay(200, CancellationToken.None);
                    }
                })
        );

    /// <summary>One who opens connections and says nothing, or half a call, on each of them.</summary>
    private static async Task HostileAsync(RunningService service, NailcrowClient ilka, long ticket) =>
        await BesideAsync(
            $"an entry while {Connections} connections are held",
            ilka,
            ticket,
            async over =>
            {
                var held = new List<TcpClient>();
                try
                {
                    for (var i = 0; i < Connections && !over.IsCancellationRequested; i++)
                    {
                        var tcp = new TcpClient();
                        await tcp.ConnectAsync(service.Address.Host, service.Address.Port, CancellationToken.None);
                        if (i % 2 == 0)
                            await tcp.GetStream()
                                .WriteAsync(
                                    Encoding.ASCII.GetBytes("POST /api/sign-in HTTP/1.1\r\nHost: x\r\nContent-Le"),
                                    CancellationToken.None
                                );
                        held.Add(tcp);
                    }
                    await Task.Delay(Timeout.Infinite, over);
                }
                catch (Exception e) when (e is OperationCanceledException or IOException or SocketException)
                {
                    // It is over, or we were turned away.
                }
                finally
                {
                    held.ForEach(tcp => tcp.Dispose());
                }
            }
        );

    /// <summary>A rule that is kept is held against every line that nobody understood yet.</summary>
    private static async Task RuleAsync(RunningService service, NailcrowClient admin)
    {
        await using (var connection = new SqliteConnection($"Data Source={service.DatabaseFile}"))
        {
            await connection.OpenAsync();
            await using var insert = connection.CreateCommand();
            insert.CommandText =
                "WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < "
                + KeptLines
                + ") INSERT INTO intake (id, received_at, via, sender, text, outcome) SELECT printf('01A00000-0000-7000-8000-%012X', i), "
                + "1309312115701350400 + i, 'syslog', '198.51.100.9', '<134>Mar  1 08:00:00 strange-' || i || ' kernel: ' || "
                + "replace(hex(zeroblob(300)), '00', 'ab ') || i, 'Unmatched' FROM n";
            await insert.ExecuteNonQueryAsync();
        }
        var watch = Stopwatch.StartNew();
        await admin.PutRuleAsync(new IntakeRule("slow", @"(?:(?:ab?\s*)+x*)+(?<bay>\d+) farewell"), CancellationToken.None);
        Told.Plain($"a rule held against {KeptLines} kept lines", watch.Elapsed.TotalSeconds, "s", "under 2");
    }
}
