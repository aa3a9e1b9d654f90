using System.Diagnostics;
using Microsoft.Data.Sqlite;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>Entries acknowledged through the interface, against the same rows written durably by the bare database.</summary>
internal static class Appending
{
    private const int Writers = 32;
    private static readonly TimeSpan Length = TimeSpan.FromSeconds(double.Parse(Environment.GetEnvironmentVariable("BENCH_SECONDS") ?? "8", System.Globalization.CultureInfo.InvariantCulture));

    public static async Task MeasureAsync()
    {
        var bare = await BareAsync();
        var ours = await OursAsync();
        Told.Line($"{Writers} clients appending", ours, bare, "entries/s", "at least 0.5");
    }

    private static async Task<double> OursAsync()
    {
        await using var service = await RunningService.StartPeopledAsync(assembly: Published.Service);
        var ilka = await service.SignInAsync("ilka");
        var tickets = new List<long>();
        for (var i = 0; i < Writers; i++)
            tickets.Add((await ilka.ReportAsync(new FaultAsk("FSC-0203", $"Fault {i}"), CancellationToken.None)).Ticket);
        var token = (await ilka.SignInAsync("ilka", RunningService.Password, CancellationToken.None)).AccessToken;
        async Task<int> WriteAsync(int writer, TimeSpan length)
        {
            await using var client = await LeanClient.ConnectAsync(service.Address, $"/api/tickets/{tickets[writer]}/entries", token);
            var written = 0;
            for (var clock = Stopwatch.StartNew(); clock.Elapsed < length; written++)
                await client.PostAsync($$"""{"body":{"kind":"note-written","text":"A note as long as people write them: lamp amber, beeper silenced, key is with the porter."},"id":"{{Guid.CreateVersion7()}}"}""");
            return written;
        }
        await Task.WhenAll(Enumerable.Range(0, Writers).Select(w => WriteAsync(w, TimeSpan.FromSeconds(8)))); // until the compiler has done what it does while code runs
        var clock = Stopwatch.StartNew();
        var all = await Task.WhenAll(Enumerable.Range(0, Writers).Select(w => WriteAsync(w, Length)));
        return all.Sum() / clock.Elapsed.TotalSeconds;
    }

    /// <summary>One connection a writer, one transaction a row, write-ahead log with a flush at each commit: what durable means in SQLite.</summary>
    private static async Task<double> BareAsync()
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("nailcrow-bare-").FullName, "bare.db");
        Execute(file, "PRAGMA journal_mode = WAL; CREATE TABLE journal (position INTEGER PRIMARY KEY AUTOINCREMENT, ticket INTEGER, seq INTEGER, id TEXT UNIQUE, at INTEGER, recorded_at INTEGER, by TEXT, kind TEXT, body TEXT, hash TEXT, UNIQUE (ticket, seq))");
        int Write(int writer)
        {
            using var connection = new SqliteConnection($"Data Source={file};Default Timeout=60");
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = "INSERT INTO journal (ticket, seq, id, at, recorded_at, by, kind, body, hash) VALUES ($ticket, $seq, $id, 1, 1, 'ilka', 'note-written', $body, $hash)";
            var (seq, id) = (command.Parameters.Add("$seq", SqliteType.Integer), command.Parameters.Add("$id", SqliteType.Text));
            command.Parameters.AddWithValue("$ticket", writer);
            command.Parameters.AddWithValue("$body", """{"kind":"note-written","text":"A note as long as people write them: lamp amber, beeper silenced, key is with the porter."}""");
            command.Parameters.AddWithValue("$hash", new string('a', 64));
            var written = 0;
            for (var clock = Stopwatch.StartNew(); clock.Elapsed < Length; written++)
            {
                (seq.Value, id.Value) = (written, Guid.CreateVersion7().ToString());
                command.ExecuteNonQuery();
            }
            return written;
        }
        var clock = Stopwatch.StartNew();
        var all = await Task.WhenAll(Enumerable.Range(0, Writers).Select(w => Task.Factory.StartNew(() => Write(w), TaskCreationOptions.LongRunning)));
        return all.Sum() / clock.Elapsed.TotalSeconds;
    }

    private static void Execute(string file, string sql)
    {
        using var connection = new SqliteConnection($"Data Source={file}");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }
}
