using System.Net.Sockets;
using System.Text;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;
using Nailcrow.Running.Fire;

namespace Nailcrow.Service.Tests.Nodes;

/// <summary>Nodes of the release before this one, which are upgraded one after the other while people work.</summary>
[Takes(105)]
public sealed class NodesUpgradedTests : IAsyncLifetime
{
    private readonly RunningService[] _nodes = new RunningService[2];
    private RunningPostgres? _postgres;
    private string _database = "";
    private string _before = "";

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        ServerOfItsOwn.OnceIsEnough();
        _before = await ReleaseBefore.ServiceAsync(Ct);
        _postgres = await RunningPostgres.StartAsync();
        _database = await _postgres.NewDatabaseAsync();
        for (var i = 0; i < _nodes.Length; i++)
            _nodes[i] = await StartAsync(_before);
        await _nodes[0].FillAsync();
    }

    private Task<RunningService> StartAsync(string assembly) =>
        RunningService.StartAsync(assembly: assembly, further: ["--Nailcrow:Database", _database, "--Nailcrow:PasswordRounds", "1000"]);

    public async ValueTask DisposeAsync()
    {
        foreach (var node in _nodes.OfType<RunningService>()) // a test that is passed over has none
            await node.DisposeAsync();
        if (_postgres is not null)
            await _postgres.DisposeAsync();
    }

    [Fact]
    public async Task While_nodes_are_upgraded_one_by_one_people_work_on_all_of_them_and_nothing_is_lost_or_done_twice()
    {
        var doors = new Doors(_nodes);
        using var enough = new CancellationTokenSource();
        var asked = doors.WatchAsync(enough.Token);
        var (ilka, token) = await SignedInAsync("ilka");
        var writers = new List<Writer>();
        foreach (var machine in new[] { "FSC-0402", "FSC-0404", "FSC-0405" })
            writers.Add(new(doors, (await ilka(0).ReportAsync(new FaultAsk(machine, "Lamp off", Bay: "1"), Ct)).Ticket, token));
        var writing = Task.WhenAll(writers.Select(w => w.WriteAsync(enough.Token, Ct)));
        var followed = (await ilka(0).ReportAsync(new FaultAsk("FSC-0203", "Lamp of bay 5 is off", Bay: "5"), Ct)).Ticket;
        await ilka(1).WriteAsync(followed, new EngineerAssigned("ilka"), Ct);
        await ilka(0).WriteAsync(followed, new ArrivedOnSite(), Ct);
        await ilka(1).WriteAsync(followed, new SnapshotTaken(Seen()), Ct);
        await ilka(0).StartRunAsync(followed, "not-reached", Ct);

        await UpgradeAsync(0);
        await StepAsync(ilka, followed, steps: 1);
        (await ReleasesAsync(0)).Distinct().Count().ShouldBe(2);
        await SaysAsync(1, "tollardt5-06", "drive in bay 3 went offline"); // one of the release before hears it, and either joins it
        await _nodes[1].Process.KillAsync();
        _nodes[1] = await StartAsync(_before); // it comes up again on tables that it does not know
        await StepAsync(ilka, followed, steps: 1);
        await SaysAsync(0, "brackmerex60-14", "drive in bay 4 went offline");
        await Soon.IsAsync(async () => (await TicketsOfAsync("FSC-0406", 0)).Count + (await TicketsOfAsync("FSC-0414", 1)).Count == 2, Ct);
        await UpgradeAsync(1);
        await Soon.IsAsync(async () => (await ReleasesAsync(0)).Distinct().Count() == 1, Ct);

        await enough.CancelAsync();
        await writing;
        await asked;
        foreach (var writer in writers)
        {
            var written = (await EntriesAsync(ilka(1), writer.Ticket)).Select(e => e.Id).ToList();
            written.ShouldBeUnique();
            writer.Acknowledged.Count.ShouldBeGreaterThan(20);
            writer.Acknowledged.ShouldBeSubsetOf(written);
        }
        (await ilka(0).TicketAsync(followed, Ct)).Run.ShouldNotBeNull().Visits.Count.ShouldBe(2);
        (await (await _nodes[1].SignInAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    /// <summary>Whoever signed in on a node of the release before is in on all, whichever release it runs.</summary>
    private async Task<(Func<int, NailcrowClient> At, string Token)> SignedInAsync(string name)
    {
        var token = (
            await new NailcrowClient(_nodes[0].Http(), TimeProvider.System).SignInAsync(name, RunningService.Password, Ct)
        ).AccessToken;
        return (
            node =>
            {
                var client = new NailcrowClient(_nodes[node].Http(), TimeProvider.System);
                client.UseToken(token);
                return client;
            },
            token
        );
    }

    private async Task UpgradeAsync(int node)
    {
        await _nodes[node].StopAsync();
        _nodes[node] = await StartAsync(Built.Service);
    }

    /// <summary>As a person types it: bay 5 has dropped out.</summary>
    private static Snapshot Seen() =>
        new(
            DateTimeOffset.UtcNow,
            SeenByPerson.Source,
            [
                .. Enumerable
                    .Range(1, 8)
                    .Select(b => new Bay(
                        $"{b}",
                        b == 5 ? BayRole.Dropped : BayRole.Member,
                        b == 5 ? DriveHealth.Faulted : DriveHealth.Good,
                        Serial: $"CDR12T000{b}",
                        Array: "catalogue"
                    )),
            ],
            [new("catalogue", ArrayLevel.Raid6, 8, ArrayState.Degraded)]
        );

    /// <summary>So many steps of a run, each answered on another node than the one that showed it.</summary>
    private static async Task StepAsync(Func<int, NailcrowClient> ilka, long ticket, int steps)
    {
        for (var nth = 0; nth < steps; nth++)
        {
            var run = (await ilka(nth % 2).TicketAsync(ticket, Ct)).Run.ShouldNotBeNull();
            if (run.Current is not { Kind: not StepKind.Gate } step)
                return;
            var answer = step.TakesText ? "FSC-0203" : step.Answers[0].Answer;
            EntryBody body =
                step.Decides is not null ? new StepDecided(run.Sheet.Id, step.Id, answer)
                : step.IsPassed && answer == RunStep.Done ? new StepPassed(run.Sheet.Id, step.Id)
                : new StepAnswered(run.Sheet.Id, step.Id, answer);
            await ilka((nth + 1) % 2).WriteAsync(ticket, body, Ct);
        }
    }

    private async Task<List<string>> ReleasesAsync(int node) =>
        [.. (await (await _nodes[node].SignInAsync("admin")).NodesAsync(Ct)).Nodes.Select(n => n.Release).Order(StringComparer.Ordinal)];

    private async Task SaysAsync(int node, string host, string text)
    {
        using var tcp = new TcpClient();
        await tcp.ConnectAsync("127.0.0.1", await _nodes[node].SyslogPortAsync(), Ct);
        await tcp.GetStream().WriteAsync(Encoding.UTF8.GetBytes($"<131>1 - {host} storage - - - {text}\n"), Ct);
        await tcp.GetStream().FlushAsync(Ct);
        var dorrik = await _nodes[node].SignInAsync("dorrik");
        await Soon.IsAsync(async () => (await dorrik.IntakeAsync("pending", Ct)).Items.Count == 0, Ct);
    }

    private async Task<IReadOnlyList<Core.Tickets.TicketLine>> TicketsOfAsync(string asset, int node) =>
        (await (await _nodes[node].SignInAsync("dorrik")).TicketsAsync(new(Asset: asset), Ct)).Tickets;

    private static async Task<List<Entry>> EntriesAsync(NailcrowClient client, long ticket)
    {
        var all = new List<Entry>();
        for (long? after = 0; after is { } from; )
        {
            var page = await client.JournalAsync(ticket, from, Ct);
            all.AddRange(page.Entries);
            after = page.Next;
        }
        return all;
    }
}
