using System.Diagnostics;
using System.Globalization;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;
using Npgsql;

namespace Nailcrow.Bench;

/// <summary>Three nodes on one PostgreSQL, all on this machine's cores: appending, hearing of what another node wrote, and taking over.</summary>
internal static class Nodes
{
    private const int Count = 3;
    private const int Clients = 66;
    private const int Rounds = 11;
    private const int Heard = 200;
    private const int Killed = 3;

    private static readonly TimeSpan Window = TimeSpan.FromSeconds(1.5);
    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(30);
    private static readonly TimeSpan AtMost = TimeSpan.FromSeconds(60);

    public static async Task MeasureAsync()
    {
        await using var postgres = await RunningPostgres.StartAsync(durable: true);
        var database = await postgres.NewDatabaseAsync();
        string[] further = ["--Nailcrow:Database", database, "--Nailcrow:PasswordRounds", "1000"];
        var nodes = new List<RunningService>();
        for (var i = 0; i < Count; i++)
            nodes.Add(await RunningService.StartAsync(assembly: Published.Service, further: further));
        await nodes[0].FillAsync();
        try
        {
            await AppendAsync(nodes);
            await HearAsync(nodes, database);
            await TakeOverAsync(nodes, postgres, database, further);
        }
        finally
        {
            foreach (var node in nodes)
                await node.DisposeAsync();
        }
    }

    private static async Task AppendAsync(List<RunningService> nodes)
    {
        var ilka = await nodes[0].SignInAsync("ilka");
        var tickets = new List<long>();
        for (var i = 0; i < Clients; i++)
            tickets.Add((await ilka.ReportAsync(new FaultAsk("FSC-0203", $"Fault {i}"), CancellationToken.None)).Ticket);
        var token = (await ilka.SignInAsync("ilka", RunningService.Password, CancellationToken.None)).AccessToken;
        Task<LeanClient> AtAsync(RunningService node, long ticket) =>
            LeanClient.ConnectAsync(node.Address, $"/api/tickets/{ticket}/entries", token);
        // Each ticket is one node's in both, so that none has to read what another has just written.
        var here = await Task.WhenAll(tickets.Take(Clients / 2).Select(t => AtAsync(nodes[0], t)));
        var there = await Task.WhenAll(tickets.Skip(Clients / 2).Select((t, i) => AtAsync(nodes[i % Count], t)));
        await Appending.OursAsync(here, TimeSpan.FromSeconds(8));
        await Appending.OursAsync(there, TimeSpan.FromSeconds(8));

        await Told.InTurnAsync(
            $"{Clients / 2} clients on {Count} nodes, to one",
            () => Appending.OursAsync(there, Window),
            () => Appending.OursAsync(here, Window),
            Rounds,
            "entries/s",
            "at least 0.9"
        );
        foreach (var client in (LeanClient[])[.. here, .. there])
            await client.DisposeAsync();
    }

    /// <summary>From when the writer has its answer until the other node's stream has told it, against a bare word from connection to connection.</summary>
    private static async Task HearAsync(List<RunningService> nodes, string database)
    {
        var ilka = await nodes[0].SignInAsync("ilka");
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0311", "Lamp off"), CancellationToken.None)).Ticket;
        using var http = await nodes[1].HttpAsync("ilka");
        using var stream = new StreamReader(await http.GetStreamAsync("api/live"));
        var (ours, bare) = (new List<double>(), new List<double>());
        await using var floor = await BareWord.OnAsync(database);
        for (var i = 0; i < Heard; i++)
        {
            var hearing = EntryAsync(stream);
            await Task.Delay(Between);
            var sent = Stopwatch.GetTimestamp();
            await ilka.WriteAsync(ticket, new NoteWritten($"Said {i}"), CancellationToken.None);
            ours.Add(Stopwatch.GetElapsedTime(sent, await hearing).TotalMilliseconds);
            bare.Add(await floor.SayAsync());
        }
        Told.Line("written here, heard there, median", Told.Median(ours), Told.Median(bare), "ms", "under 100 ms");
        Told.Line("the slowest of a hundred", Slowest(ours), Slowest(bare), "ms", "under 100 ms");
    }

    private static double Slowest(List<double> values) => values.Order().ElementAt(values.Count * 99 / 100);

    private static async Task<long> EntryAsync(StreamReader stream)
    {
        while (await stream.ReadLineAsync() is { } line)
            if (line == "event: entry")
                return Stopwatch.GetTimestamp();
        throw new IOException("The stream ended.");
    }

    private static async Task TakeOverAsync(List<RunningService> nodes, RunningPostgres postgres, string database, string[] further)
    {
        var took = new List<double>();
        for (var i = 0; i < Killed; i++)
        {
            var has = await WhoFollowsAsync(postgres, database);
            var killed = nodes.FindIndex(n => has.EndsWith($" {n.Process.Id}", StringComparison.Ordinal));
            var at = Stopwatch.GetTimestamp();
            await nodes[killed].Process.KillAsync();
            while (await WhoFollowsAsync(postgres, database) is var now && (now.Length == 0 || now == has))
                if (Stopwatch.GetElapsedTime(at) > AtMost)
                    throw new TimeoutException("Nobody took over.");
            took.Add(Stopwatch.GetElapsedTime(at).TotalSeconds);
            nodes[killed] = await RunningService.StartAsync(assembly: Published.Service, further: further);
            await Task.Delay(TimeSpan.FromSeconds(10)); // until the work is shared again
        }
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"killed, and its work taken over: {took.Min():0.0} to {took.Max():0.0} s of {Killed}; asked: under 10"
            )
        );
    }

    private static Task<string> WhoFollowsAsync(RunningPostgres postgres, string database) =>
        postgres.AskAsync(
            database,
            "SELECT n.name FROM lease l JOIN node n ON n.id = l.node WHERE l.work = 'FollowingRebuilds' AND l.until > clock_timestamp()"
        );
}

/// <summary>LISTEN and NOTIFY between two bare connections, the word told in a durable transaction of its own that writes a row.</summary>
internal sealed class BareWord : IAsyncDisposable
{
    private readonly NpgsqlConnection _says;
    private readonly NpgsqlConnection _hears;
    private long _heard;

    private BareWord(NpgsqlConnection says, NpgsqlConnection hears) => (_says, _hears) = (says, hears);

    public static async Task<BareWord> OnAsync(string database)
    {
        var bare = new BareWord(new($"{database};Pooling=false"), new($"{database};Pooling=false"));
        await bare._says.OpenAsync();
        await bare._hears.OpenAsync();
        bare._hears.Notification += (_, _) => bare._heard = Stopwatch.GetTimestamp();
        await DoAsync(bare._hears, "LISTEN bare");
        await DoAsync(bare._says, "CREATE TABLE bare (said bigint)");
        return bare;
    }

    /// <returns>Milliseconds.</returns>
    public async Task<double> SayAsync()
    {
        var sent = Stopwatch.GetTimestamp();
        var hearing = _hears.WaitAsync();
        await DoAsync(_says, "BEGIN; INSERT INTO bare VALUES (1); SELECT pg_notify('bare', ''); COMMIT");
        await hearing;
        return Stopwatch.GetElapsedTime(sent, _heard).TotalMilliseconds;
    }

    private static async Task DoAsync(NpgsqlConnection connection, string sql)
    {
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }

    public async ValueTask DisposeAsync()
    {
        await DoAsync(_says, "DROP TABLE bare");
        await _says.DisposeAsync();
        await _hears.DisposeAsync();
    }
}
