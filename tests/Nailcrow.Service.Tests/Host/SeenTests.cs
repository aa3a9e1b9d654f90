using System.Collections.Concurrent;
using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Host;

/// <summary>What whoever watches a service from outside sees of it: a page of numbers, what is sent to a collector, and whether it takes calls.</summary>
public sealed partial class SeenTests
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task The_page_of_numbers_has_all_that_the_dashboard_and_the_alerts_ask_for_and_is_an_administrators()
    {
        await using var postgres = await ServerOfItsOwn.StartAsync();
        string[] words =
        [
            "--Nailcrow:Database",
            await postgres.NewDatabaseAsync(),
            "--Nailcrow:PasswordRounds",
            "1000",
            "--Nailcrow:Seen:Page",
            "true",
        ];
        await using var before = await RunningService.StartPeopledAsync(
            machine: new Uri("http://127.0.0.1:9"), // where nobody answers
            assembly: Built.Service,
            further: words
        );
        var ticket = (await (await before.SignInAsync("ilka")).ReportAsync(new FaultAsk("FSC-0107", "Lamp off", Bay: "5"), Ct)).Ticket;
        await before.Process.StopAsync();
        await using var service = await RunningService.StartAsync(before.Folder, assembly: Built.Service, further: words);
        var ilka = await service.SignInAsync("ilka");
        await ilka.WriteAsync(ticket, new NoteWritten("One"), Ct);
        using var listening = await service.HttpAsync("ilka");
        using var stream = await listening.GetAsync("api/live", HttpCompletionOption.ResponseHeadersRead, Ct);
        await Should.ThrowAsync<Exception>(() => ilka.TakeSnapshotAsync(ticket, Ct));

        (await StatusAsync(service, "ilka")).ShouldBe(HttpStatusCode.Forbidden);
        using (var stranger = service.Http())
            (await stranger.GetAsync("metrics", Ct)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        var page = await PageAsync(service);
        Value(page, "nailcrow_journal_entries_total").ShouldBeGreaterThanOrEqualTo(1);
        Value(page, "nailcrow_database_up").ShouldBe(1);
        Value(page, "nailcrow_stream_open").ShouldBe(1);
        Regex.Matches(page, "^nailcrow_work_held\\{.*\\} 1$", RegexOptions.Multiline).Count.ShouldBe(9);
        page.ShouldContain("answer=\"silent\"");
        foreach (var asked in Asked())
            Regex.IsMatch(page, $"^{asked}[{{ ]", RegexOptions.Multiline).ShouldBeTrue($"{asked} is on no page");

        await postgres.StopAsync();
        await Soon.IsAsync(async () => (await ReadyAsync(service)).State == "database-away", Ct);
        using (var anybody = service.Http())
            (await anybody.GetAsync("health/live", Ct)).StatusCode.ShouldBe(HttpStatusCode.OK);
        await postgres.StartAgainAsync();
        await Soon.IsAsync(async () => (await ReadyAsync(service)) == (HttpStatusCode.OK, "ready"), Ct);
    }

    [Fact]
    public async Task Where_nobody_asked_for_it_there_is_no_page()
    {
        await using var service = await RunningService.StartPeopledAsync();

        (await StatusAsync(service, "admin")).ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_collector_is_sent_traces_metrics_and_the_log_and_one_that_is_away_holds_nothing_up()
    {
        using var collector = new Collector();
        await using var service = await RunningService.StartPeopledAsync(
            alone: true,
            further: ["--Nailcrow:Seen:Otlp", collector.Address, "--Nailcrow:Seen:EverySeconds", "1"]
        );
        var ilka = await service.SignInAsync("ilka");
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off", Bay: "5"), Ct)).Ticket;

        await Soon.IsAsync(() => Task.FromResult(collector.Heard("/v1/metrics", "nailcrow.journal.entries")), Ct);
        await Soon.IsAsync(() => Task.FromResult(collector.Heard("/v1/traces", "journal turn")), Ct);
        await Soon.IsAsync(() => Task.FromResult(collector.Heard("/v1/logs", "Nailcrow listens at")), Ct);
        collector.Dispose();

        await ilka.WriteAsync(ticket, new NoteWritten("Nobody watches now"), Ct);
        (await ilka.TicketAsync(ticket, Ct)).Head.ShouldBeGreaterThanOrEqualTo(2);
    }

    [Fact]
    public async Task A_service_that_goes_down_says_so_and_serves_on_until_whoever_shares_calls_has_heard_it()
    {
        await using var service = await RunningService.StartPeopledAsync(alone: true, further: ["--Nailcrow:Seen:GoingDownSeconds", "2"]);
        var ilka = await service.SignInAsync("ilka");
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off", Bay: "5"), Ct)).Ticket;
        (await ReadyAsync(service)).ShouldBe((HttpStatusCode.OK, "ready"));

        var stopping = service.Process.StopAsync();

        await Soon.IsAsync(async () => await ReadyAsync(service) == (HttpStatusCode.ServiceUnavailable, "going-down"), Ct);
        await ilka.WriteAsync(ticket, new NoteWritten("Taken to the end"), Ct);
        await stopping;
        await using var again = await RunningService.StartAsync(service.Folder);
        (await (await again.SignInAsync("ilka")).JournalAsync(ticket, 0, Ct))
            .Entries.Select(e => e.Body)
            .OfType<NoteWritten>()
            .ShouldHaveSingleItem();
    }

    /// <summary>Names of metrics in the expressions of the dashboard and the alerts that are kept with the documents.</summary>
    private static IEnumerable<string> Asked()
    {
        var folder = Path.Combine(Built.Root, "docs", "watching");
        var panels = JsonDocument
            .Parse(File.ReadAllText(Path.Combine(folder, "dashboard.json")))
            .RootElement.GetProperty("spec")
            .GetProperty("panels")
            .EnumerateObject()
            .SelectMany(p => p.Value.GetProperty("spec").GetProperty("queries").EnumerateArray())
            .Select(q => q.GetProperty("spec").GetProperty("plugin").GetProperty("spec").GetProperty("query").GetString()!)
            .ToList();
        panels.Count.ShouldBeGreaterThan(10);
        return panels
            .Append(File.ReadAllText(Path.Combine(folder, "alerts.yaml")))
            .SelectMany(text => MetricNames().Matches(text).Select(m => m.Value))
            .Distinct();
    }

    [GeneratedRegex(@"\b(nailcrow|http_server|dotnet)_[a-z_]+\b")]
    private static partial Regex MetricNames();

    private static double Value(string page, string name) =>
        double.Parse(
            Regex.Match(page, $"^{name}(\\{{.*\\}})? ([0-9.]+)", RegexOptions.Multiline).Groups[2].Value,
            System.Globalization.CultureInfo.InvariantCulture
        );

    private static async Task<string> PageAsync(RunningService service)
    {
        using var http = await service.HttpAsync("admin");
        return await http.GetStringAsync("metrics", Ct);
    }

    private static async Task<HttpStatusCode> StatusAsync(RunningService service, string name)
    {
        using var http = await service.HttpAsync(name);
        return (await http.GetAsync("metrics", Ct)).StatusCode;
    }

    private static async Task<(HttpStatusCode Code, string? State)> ReadyAsync(RunningService service)
    {
        using var http = service.Http();
        using var answer = await http.GetAsync("health/ready", Ct);
        return (
            answer.StatusCode,
            JsonDocument.Parse(await answer.Content.ReadAsStringAsync(Ct)).RootElement.GetProperty("state").GetString()
        );
    }

    /// <summary>Takes what is sent by OTLP over HTTP, and keeps its bytes.</summary>
    private sealed class Collector : IDisposable
    {
        private readonly HttpListener _listener = new();
        private readonly ConcurrentQueue<(string Path, string Body)> _heard = [];

        public Collector()
        {
            using (var free = new System.Net.Sockets.TcpListener(IPAddress.Loopback, 0))
            {
                free.Start();
                Address = $"http://127.0.0.1:{((IPEndPoint)free.LocalEndpoint).Port}";
            }
            _listener.Prefixes.Add($"{Address}/");
            _listener.Start();
            _ = ListenAsync();
        }

        public string Address { get; }

        /// <summary>Names stand in protobuf as the characters they are.</summary>
        public bool Heard(string path, string text) => _heard.Any(h => h.Path == path && h.Body.Contains(text, StringComparison.Ordinal));

        public void Dispose() => _listener.Close();

        private async Task ListenAsync()
        {
            try
            {
                while (_listener.IsListening)
                {
                    var call = await _listener.GetContextAsync();
                    using var body = new MemoryStream();
                    await call.Request.InputStream.CopyToAsync(body);
                    _heard.Enqueue((call.Request.Url!.AbsolutePath, Encoding.Latin1.GetString(body.ToArray())));
                    call.Response.Close();
                }
            }
            catch (Exception e) when (e is HttpListenerException or ObjectDisposedException)
            {
                // It was closed.
            }
        }
    }
}
