using System.Diagnostics;
using System.Globalization;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Appliances;

namespace Nailcrow.Running.Fire;

/// <summary>How much goes on while nodes are killed.</summary>
/// <param name="Rebuilds">Machines that are rebuilding meanwhile, each a process of its own.</param>
public sealed record Load(int Writers, int Listeners, int Alerts, int Machines, int Rebuilds);

/// <summary>What came of it: everything that is not as it has to be, in words; and how much there was of what.</summary>
public sealed record Outcome(IReadOnlyList<string> Troubles, int Entries, int Alerts, int Heard, int Cuts, int Readings);

/// <summary>
/// Writers, listeners and monitors who go on while whoever tests kills nodes, puts them to sleep, or takes the database away; and the account
/// of it afterwards, from the database itself.
/// </summary>
public sealed class UnderFire(RunningPostgres postgres, string database, IReadOnlyList<RunningService> nodes)
{
    private static readonly TimeSpan Settles = TimeSpan.FromMinutes(3);

    private readonly Doors _doors = new(nodes);

    /// <param name="fire">What is done to the nodes and the database meanwhile.</param>
    public async Task<Outcome> RunAsync(Load load, Func<Task> fire, CancellationToken ct)
    {
        var (writers, listeners, alarm, machines) = await PrepareAsync(load, ct);
        var rebuilding = new List<Rebuilding>();
        for (var nth = 0; nth < load.Rebuilds; nth++)
            rebuilding.Add(await Rebuilding.BeginAsync(nodes[0], nth, ct));
        using var enough = new CancellationTokenSource();
        using var all = CancellationTokenSource.CreateLinkedTokenSource(ct);
        var watching = _doors.WatchAsync(all.Token);
        var listening = listeners.ConvertAll(l => l.ListenAsync(all.Token));
        while (listeners.Exists(l => l.From < 0))
            await Task.Delay(50, ct);
        var writing = writers.ConvertAll(w => w.WriteAsync(enough.Token, ct));
        var alerting = Parallel.ForEachAsync(
            Enumerable.Range(0, load.Alerts),
            new ParallelOptions { MaxDegreeOfParallelism = 32, CancellationToken = ct },
            async (nth, token) => await alarm.SendAsync(nth, machines[nth % machines.Count], token)
        );
        await fire();
        await enough.CancelAsync();
        await Task.WhenAll([.. writing, alerting]);
        var troubles = new List<string>();
        foreach (var machine in rebuilding) // what does not answer has no readings, and nothing more is written
            await machine.DisposeAsync();
        await SettleAsync(listeners, troubles, ct);
        await all.CancelAsync();
        await Task.WhenAll([.. listening, watching]);
        var readings = await ReadingsAsync(rebuilding, troubles);
        await AccountAsync(writers, listeners, load, troubles, ct);
        return new(
            troubles,
            writers.Sum(w => w.Acknowledged.Count),
            load.Alerts,
            listeners.Sum(l => l.Heard.Count),
            listeners.Sum(l => l.Cuts),
            readings
        );
    }

    private async Task<(List<Writer> Writers, List<Listener> Listeners, Alarm Alarm, List<string> Machines)> PrepareAsync(
        Load load,
        CancellationToken ct
    )
    {
        var admin = await nodes[0].SignInAsync("admin");
        var model = (await admin.ApplianceAsync("FSC-0107", ct)).Model.Id;
        var machines = Enumerable.Range(0, load.Machines).Select(i => $"FIRE-{i:000}").ToList();
        var written = Enumerable.Range(0, load.Writers).Select(i => $"WRITE-{i:000}").ToList();
        await admin.LoadAsync(
            new(
                [],
                [],
                [
                    .. machines
                        .Concat(written)
                        .Select(asset => new Appliance(
                            asset,
                            $"SN-{asset}",
                            model,
                            "Corrin Deep Archive",
                            "Hall",
                            Arrays: [new("vault", Core.Appliances.Arrays.ArrayLevel.Raid6, 6)]
                        )),
                ]
            ),
            ct
        );
        var token = (
            await new NailcrowClient(nodes[0].Http(), TimeProvider.System).SignInAsync("ilka", RunningService.Password, ct)
        ).AccessToken;
        var ilka = await nodes[0].SignInAsync("ilka");
        var writers = new List<Writer>();
        foreach (var asset in written)
            writers.Add(new(_doors, (await ilka.ReportAsync(new FaultAsk(asset, "Lamp off", Bay: "1"), ct)).Ticket, token));
        var sender = await admin.PutSenderAsync("fire", ct);
        return (
            writers,
            [.. Enumerable.Range(0, load.Listeners).Select(_ => new Listener(_doors, token))],
            new Alarm(_doors, sender.Name, sender.Secret ?? throw new InvalidOperationException("A new sender has a secret.")),
            machines
        );
    }

    /// <summary>Until every alert has its ticket, and everybody has heard of the last entry.</summary>
    private async Task SettleAsync(List<Listener> listeners, List<string> troubles, CancellationToken ct)
    {
        var clock = Stopwatch.StartNew();
        while (
            await AskAsync("SELECT count(*) FROM intake WHERE outcome = 'Pending'") != "0"
            || await AskAsync("SELECT max(position) FROM journal") is var last
                && listeners.Exists(l => $"{l.Heard.LastOrDefault()}" != last)
        )
        {
            if (clock.Elapsed > Settles)
            {
                troubles.Add(
                    $"After {Settles} {await AskAsync("SELECT count(*) FROM intake WHERE outcome = 'Pending'")} alerts have no ticket yet, "
                        + "or a listener has not heard the last entry."
                );
                return;
            }
            await Task.Delay(500, ct);
        }
    }

    private async Task<int> ReadingsAsync(List<Rebuilding> rebuilding, List<string> troubles)
    {
        var all = 0;
        foreach (var machine in rebuilding)
        {
            var readings = await ListAsync(
                "SELECT text::json #>> '{body,percent}', extract(epoch from recorded_at) FROM journal "
                    + $"WHERE ticket = {machine.Ticket} AND kind = 'reading-taken' ORDER BY seq"
            );
            troubles.AddRange(Rebuilding.WrongWith(machine.Ticket, readings));
            all += readings.Count;
        }
        return all;
    }

    private async Task AccountAsync(List<Writer> writers, List<Listener> listeners, Load load, List<string> troubles, CancellationToken ct)
    {
        var kept = await ListAsync("SELECT id FROM journal WHERE kind = 'note-written' AND text LIKE '%Written under fire%'");
        var known = kept.Select(Guid.Parse).ToHashSet();
        var acknowledged = writers.SelectMany(w => w.Acknowledged).ToList();
        Count("acknowledged entries are missing", acknowledged.Count(id => !known.Contains(id)));
        Count("entries are there that nobody was told of, or twice", kept.Count - acknowledged.Count);

        var positions = (await ListAsync("SELECT position FROM journal ORDER BY position")).ConvertAll(p =>
            long.Parse(p, CultureInfo.InvariantCulture)
        );
        foreach (var listener in listeners)
            if (!listener.Heard.SequenceEqual(positions.SkipWhile(p => p <= listener.From)))
                troubles.Add($"A listener heard {listener.Heard.Count} entries, otherwise than they were written.");

        var texts = await ListAsync("SELECT text FROM journal WHERE text LIKE '%fire % burns%'");
        for (var nth = 0; nth < load.Alerts; nth++)
            if (texts.Count(t => t.Contains(Alarm.Text(nth), StringComparison.Ordinal)) is var times and not 1)
                troubles.Add($"Alert {nth} is in {times} entries.");
        Count(
            "machines have more than one ticket",
            int.Parse(
                await AskAsync(
                    "SELECT count(*) FROM (SELECT 1 FROM ticket_line WHERE asset LIKE 'FIRE-%' GROUP BY asset HAVING count(*) > 1) more"
                ),
                CultureInfo.InvariantCulture
            )
        );
        troubles.AddRange((await (await nodes[0].SignInAsync("admin")).VerifyAsync(ct)).Troubles.Select(t => t.Sentence));

        void Count(string what, int count)
        {
            if (count != 0)
                troubles.Add($"{count} {what}.");
        }
    }

    private Task<string> AskAsync(string sql) => postgres.AskAsync(database, sql);

    private async Task<List<string>> ListAsync(string sql) => [.. (await AskAsync(sql)).Split('\n', StringSplitOptions.RemoveEmptyEntries)];
}
