using System.Diagnostics;
using System.Net.Sockets;
using System.Text;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Nodes;

/// <summary>Three equal nodes that started all at once, on a database that had nothing yet.</summary>
public sealed class ThreeNodes : IAsyncLifetime
{
    public const int Count = 3;

    private RunningPostgres? _postgres;

    public RunningPostgres Postgres => _postgres ?? throw new InvalidOperationException("Not started.");

    public string Database { get; private set; } = "";

    public List<RunningService> All { get; } = [];

    public async ValueTask InitializeAsync()
    {
        if (RunningService.OnServer)
            return; // the tests say why they are passed over
        _postgres = await RunningPostgres.StartAsync();
        Database = await _postgres.NewDatabaseAsync();
        All.AddRange(await Task.WhenAll(Enumerable.Range(0, Count).Select(_ => StartAsync())));
        await All[0].FillAsync();
    }

    /// <summary>One more of them.</summary>
    public Task<RunningService> StartAsync() =>
        RunningService.StartAsync(
            assembly: Built.Service,
            further: ["--Nailcrow:Database", Database, "--Nailcrow:PasswordRounds", "1000", "--Nailcrow:ReadsAhead", "false"]
        );

    public async ValueTask DisposeAsync()
    {
        foreach (var node in All)
            await node.DisposeAsync();
        if (_postgres is not null)
            await _postgres.DisposeAsync();
    }
}

/// <summary>Several nodes as whoever uses them sees them: it is one service, also while some of them are gone.</summary>
[Takes(80)]
public sealed class SeveralNodesTests(ThreeNodes three) : IClassFixture<ThreeNodes>, IAsyncLifetime
{
    public ValueTask InitializeAsync()
    {
        ServerOfItsOwn.OnceIsEnough();
        return ValueTask.CompletedTask;
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private List<RunningService> Nodes => three.All;

    [Fact]
    public async Task Who_is_in_on_one_is_in_on_all_and_who_is_put_out_is_out_on_all()
    {
        await Nodes[0].LetInAsync("leaver", Role.Engineer, Role.Dispatcher);
        var clients = new List<NailcrowClient>();
        var there = new NailcrowClient(Nodes[0].Http(), TimeProvider.System);
        var token = (await there.SignInAsync("leaver", RunningService.Password, Ct)).AccessToken;
        foreach (var node in Nodes)
        {
            var client = new NailcrowClient(node.Http(), TimeProvider.System);
            client.UseToken(token);
            clients.Add(client);
        }
        var ticket = (await clients[1].ReportAsync(new FaultAsk("FSC-0203", "Lamp off", Bay: "5"), Ct)).Ticket;
        await clients[2].WriteAsync(ticket, new EngineerAssigned("leaver"), Ct);

        (await clients[0].TicketAsync(ticket, Ct)).Engineer.ShouldBe("leaver");

        // A role that is given or taken on one is had or gone on all.
        var admin = await Nodes[1].SignInAsync("admin");
        (await MayAsync(() => clients[2].NodesAsync(Ct))).ShouldBeFalse();
        await admin.PutRolesAsync("leaver", [Role.Engineer, Role.Dispatcher, Role.Admin], Ct);
        foreach (var client in clients)
            await Soon.IsAsync(() => MayAsync(() => client.NodesAsync(Ct)), Ct);
        await admin.PutRolesAsync("leaver", [Role.Engineer, Role.Dispatcher], Ct);
        foreach (var client in clients)
            await Soon.IsAsync(async () => !await MayAsync(() => client.NodesAsync(Ct)), Ct);

        await admin.DisablePersonAsync("leaver", "They left", Ct);
        foreach (var client in clients)
            await Soon.IsAsync(async () => await IsOutAsync(client), Ct);
    }

    [Fact]
    public async Task Whoever_chooses_a_password_on_one_node_is_not_refused_on_another_for_not_having_chosen_one()
    {
        var admin = await Nodes[0].SignInAsync("admin");
        for (var nth = 0; nth < 3; nth++)
        {
            var first = (await admin.AddPersonAsync(new($"newcomer{nth}", "Newcomer", null, [Role.Engineer]), Ct)).FirstPassword ?? "";
            var (here, there) = (
                new NailcrowClient(Nodes[1].Http(), TimeProvider.System),
                new NailcrowClient(Nodes[2].Http(), TimeProvider.System)
            );
            var token = (await here.SignInAsync($"newcomer{nth}", first, Ct)).AccessToken;
            here.UseToken(token);
            there.UseToken(token);
            (await Should.ThrowAsync<ApiProblem>(() => there.TicketsAsync(new(), Ct))).Message.ShouldStartWith("Your password was given");

            await here.ChangePasswordAsync(first, RunningService.Password, Ct);

            await there.TicketsAsync(new(), Ct);
        }
    }

    private static async Task<bool> MayAsync(Func<Task> move)
    {
        try
        {
            await move();
            return true;
        }
        catch (ApiProblem problem) when ((int)problem.Status == 403)
        {
            return false;
        }
    }

    private static async Task<bool> IsOutAsync(NailcrowClient client)
    {
        try
        {
            await client.TicketsAsync(new(), Ct);
            return false;
        }
        catch (ApiProblem problem)
        {
            return (int)problem.Status == 401;
        }
    }

    [Fact]
    public async Task One_fault_that_is_reported_to_all_nodes_at_once_is_one_ticket()
    {
        var people = await Task.WhenAll(Nodes.Select(n => n.SignInAsync("dorrik")));
        string[] machines = ["FSC-0402", "FSC-0403", "FSC-0404", "FSC-0405", "FSC-0107"];

        foreach (var machine in machines)
        {
            var receipts = await Task.WhenAll(
                Enumerable
                    .Range(0, 12)
                    .Select(n => people[n % ThreeNodes.Count].ReportAsync(new FaultAsk(machine, $"Lamp off, said {n}", Bay: "3"), Ct))
            );

            receipts.Select(r => r.Ticket).Distinct().ShouldHaveSingleItem();
        }

        foreach (var machine in machines)
            (await people[0].TicketsAsync(new(Asset: machine), Ct)).Tickets.ShouldHaveSingleItem();
        (await (await Nodes[0].SignInAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task An_administrator_sees_who_does_what()
    {
        var admin = await Nodes[0].SignInAsync("admin");
        var list = await Soon.ComesAsync(
            () => admin.NodesAsync(Ct), // a node that has just come is given its share by and by
            l => l.Nodes.Count == 3 && l.Nodes.All(n => n is { Does.Count: 3, SilentSeconds: < 30 }),
            Ct
        );

        list.Nodes.SelectMany(n => n.Does).ShouldBeUnique();
        list.Nodes.Single(n => n.Answered).Name.ShouldEndWith($" {Nodes[0].Process.Id}");
        var refused = await Should.ThrowAsync<ApiProblem>(async () => await (await Nodes[0].SignInAsync("ilka")).NodesAsync(Ct));
        ((int)refused.Status).ShouldBe(403);
    }

    [Fact]
    public async Task Each_node_goes_on_from_the_seals_of_the_others_by_one_key()
    {
        var ilka = await Nodes[0].SignInAsync("ilka");
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0407", "Lamp off", Bay: "1"), Ct)).Ticket;
        var admins = await Task.WhenAll(Nodes.Select(n => n.SignInAsync("admin")));

        var numbers = new List<long>();
        foreach (var admin in admins)
        {
            await ilka.WriteAsync(ticket, new NoteWritten("One more"), Ct);
            numbers.Add((await admin.SealAsync(Ct)).Number);
        }

        numbers.ShouldBe([numbers[0], numbers[0] + 1, numbers[0] + 2]);
        foreach (var admin in admins)
            (await admin.VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task Whichever_node_hears_an_alert_it_is_on_its_ticket_once_also_where_the_node_that_joins_them_is_killed_or_stands_still()
    {
        await SaysAsync(Nodes[0], "tollardt5-06", "drive in bay 3 went offline");
        var ticket = await OnlyTicketAsync("FSC-0406");

        // The one that joins alerts stands still; another hears one meanwhile, and another takes over.
        var asleep = await WhoJoinsAsync();
        await SignalAsync("STOP", asleep);
        var awake = Nodes.Where(n => n != asleep).ToList();
        await SaysAsync(awake[0], "brackmerex60-14", "drive in bay 4 went offline");
        var second = await OnlyTicketAsync("FSC-0414", awake[1]);
        var now = await WhoJoinsAsync();
        now.ShouldNotBe(asleep);
        await SignalAsync("CONT", asleep);
        await SaysAsync(asleep, "brackmerex60-14", "drive in bay 4 went offline");

        // The one that has it now is killed.
        await now.Process.KillAsync();
        Nodes[Nodes.IndexOf(now)] = await three.StartAsync(); // and one comes in its place
        await SaysAsync(Nodes[0], "ostlaner16-29", "drive in bay 5 went offline");
        var third = await OnlyTicketAsync("FSC-0429");

        new[] { ticket, second, third }.Distinct().Count().ShouldBe(3);
        (await OnlyTicketAsync("FSC-0414")).ShouldBe(second);
        (await (await Nodes[0].SignInAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    private static async Task SaysAsync(RunningService node, string host, string text)
    {
        using var tcp = new TcpClient();
        await tcp.ConnectAsync("127.0.0.1", await node.SyslogPortAsync(), Ct);
        await tcp.GetStream().WriteAsync(Encoding.UTF8.GetBytes($"<131>1 - {host} storage - - - {text}\n"), Ct);
    }

    private async Task<long> OnlyTicketAsync(string asset, RunningService? asked = null)
    {
        var dorrik = await (asked ?? Nodes[0]).SignInAsync("dorrik");
        await Soon.IsAsync(async () => (await dorrik.TicketsAsync(new(Asset: asset), Ct)).Tickets.Count > 0, Ct);
        await Soon.IsAsync(async () => (await dorrik.IntakeAsync("pending", Ct)).Items.Count == 0, Ct);
        return (await dorrik.TicketsAsync(new(Asset: asset), Ct)).Tickets.ShouldHaveSingleItem().Number;
    }

    /// <summary>Asked of the database, as soon as it is somebody's.</summary>
    private async Task<RunningService> WhoJoinsAsync()
    {
        var name = "";
        await Soon.IsAsync(
            async () =>
            {
                name = await three.Postgres.AskAsync(
                    three.Database,
                    "SELECT n.name FROM lease l JOIN node n ON n.id = l.node WHERE l.work = 'JoiningAlerts' AND l.until > clock_timestamp()"
                );
                return name.Length > 0;
            },
            Ct
        );
        return Nodes.Single(n => name.EndsWith($" {n.Process.Id}", StringComparison.Ordinal));
    }

    private static async Task SignalAsync(string signal, RunningService node)
    {
        using var kill = Process.Start("bash", ["-c", $"kill -{signal} {node.Process.Id}"]);
        await kill.WaitForExitAsync(Ct);
    }
}
