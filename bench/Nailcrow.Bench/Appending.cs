using System.Diagnostics;
using Microsoft.Data.Sqlite;
using Nailcrow.Client.Intake;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>Entries acknowledged through the interface, against the same rows written durably by the bare database.</summary>
internal static class Appending
{
    private const int Writers = 32;
    private const int Rounds = 11;
    private static readonly TimeSpan Window = TimeSpan.FromSeconds(1.5);
    private static readonly TimeSpan WarmUp = TimeSpan.FromSeconds(8); // until the compiler has done what it does while code runs

    // Each of a bare server's has a connection of its own.
    private const int WritersOnServer = 64;

    public static async Task MeasureAsync()
    {
        await using var service = await RunningService.StartPeopledAsync(assembly: Published.Service);
        using var bare = new BareJournal(Writers);
        await MeasureAsync(service, Writers, bare.WriteAsync, "clients appending", "at least 0.8, goal 1.2");
    }

    /// <summary>The same on PostgreSQL, against bare Npgsql: the same rows on the same server, each its own durable transaction.</summary>
    public static async Task MeasureOnPostgresAsync()
    {
        await using var postgres = await RunningPostgres.StartAsync(durable: true);
        string[] further = ["--Nailcrow:Database", await postgres.NewDatabaseAsync()];
        await using var service = await RunningService.StartPeopledAsync(assembly: Published.Service, further: further);
        await using var bare = await BarePostgres.OnAsync(await postgres.NewDatabaseAsync(), WritersOnServer);
        await MeasureAsync(service, WritersOnServer, bare.WriteAsync, "clients appending on PostgreSQL", "at least 0.6");
    }

    /// <summary>Each client writes on a ticket of its own.</summary>
    private static async Task MeasureAsync(
        RunningService service,
        int writers,
        Func<TimeSpan, Task<double>> floor,
        string what,
        string asked
    )
    {
        var ilka = await service.SignInAsync("ilka");
        var tickets = new List<long>();
        for (var i = 0; i < writers; i++)
            tickets.Add((await ilka.ReportAsync(new FaultAsk("FSC-0203", $"Fault {i}"), CancellationToken.None)).Ticket);
        var token = (await ilka.SignInAsync("ilka", RunningService.Password, CancellationToken.None)).AccessToken;
        var clients = await Task.WhenAll(tickets.Select(t => LeanClient.ConnectAsync(service.Address, $"/api/tickets/{t}/entries", token)));
        await OursAsync(clients, WarmUp);
        await floor(Window);
        await Told.InTurnAsync($"{writers} {what}", () => OursAsync(clients, Window), () => floor(Window), Rounds, "entries/s", asked);
        foreach (var client in clients)
            await client.DisposeAsync();
    }

    /// <summary>Each client one entry after the other, for so long.</summary>
    /// <returns>Entries acknowledged in a second.</returns>
    public static async Task<double> OursAsync(LeanClient[] clients, TimeSpan length)
    {
        var clock = Stopwatch.StartNew();
        var all = await Task.WhenAll(
            clients.Select(async client =>
            {
                var written = 0;
                for (; clock.Elapsed < length; written++)
                    await client.PostAsync(
                        $$"""{"body":{"kind":"note-written","text":"A note as long as people write them: lamp amber, """
                            + $$"""beeper silenced, key is with the porter."},"id":"{{Guid.CreateVersion7()}}"}"""
                    );
                return written;
            })
        );
        return all.Sum() / clock.Elapsed.TotalSeconds;
    }
}

/// <summary>One connection a writer, one transaction a row, write-ahead log with a flush at each commit: what durable means in SQLite.</summary>
internal sealed class BareJournal : IDisposable
{
    /// <summary>An entry as long as most are.</summary>
    public const string Text =
        """{"at":"2026-11-25T08:04:53.138+00:00","body":{"kind":"note-written","text":"A note as long as people write """
        + """them: lamp amber, beeper silenced, key is with the porter."},"by":"ilka","clockOffsetMs":0,"hash":"","id":"01a211bc"""
        + """-7512-7eb7-8bae-f5088d976b81","recordedAt":"2026-11-25T08:04:53.146+00:00","seq":9,"ticket":1001}""";

    private readonly SqliteConnection[] _connections;
    private readonly int[] _written;

    public BareJournal(int writers)
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("nailcrow-bare-").FullName, "bare.db");
        _written = new int[writers];
        _connections = [.. Enumerable.Range(0, writers).Select(_ => new SqliteConnection($"Data Source={file};Default Timeout=60"))];
        foreach (var connection in _connections)
            connection.Open();
        Execute(
            _connections[0],
            "PRAGMA journal_mode = WAL; CREATE TABLE journal (position INTEGER PRIMARY KEY AUTOINCREMENT, ticket "
                + "INTEGER, seq INTEGER, id TEXT UNIQUE, at INTEGER, recorded_at INTEGER, by TEXT, kind TEXT, text "
                + "TEXT, hash TEXT, UNIQUE (ticket, seq))"
        );
    }

    public async Task<double> WriteAsync(TimeSpan length)
    {
        var clock = Stopwatch.StartNew();
        var all = await Task.WhenAll(
            _connections.Select((_, writer) => Task.Factory.StartNew(() => Write(writer, length), TaskCreationOptions.LongRunning))
        );
        return all.Sum() / clock.Elapsed.TotalSeconds;
    }

    private int Write(int writer, TimeSpan length)
    {
        using var command = _connections[writer].CreateCommand();
        command.CommandText =
            "INSERT INTO journal (ticket, seq, id, at, recorded_at, by, kind, text, hash) VALUES ($ticket, $seq, "
            + "$id, 1, 1, 'ilka', 'note-written', $text, $hash)";
        var (seq, id) = (command.Parameters.Add("$seq", SqliteType.Integer), command.Parameters.Add("$id", SqliteType.Text));
        command.Parameters.AddWithValue("$ticket", writer);
        command.Parameters.AddWithValue("$text", Text);
        command.Parameters.AddWithValue("$hash", new string('a', 64));
        var written = 0;
        for (var clock = Stopwatch.StartNew(); clock.Elapsed < length; written++)
        {
            (seq.Value, id.Value) = (_written[writer]++, Guid.CreateVersion7().ToString());
            command.ExecuteNonQuery();
        }
        return written;
    }

    public void Dispose()
    {
        foreach (var connection in _connections)
            connection.Dispose();
    }

    private static void Execute(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }
}
