using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Sockets;
using System.Text;
using Microsoft.Data.Sqlite;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Intake;

public sealed class IntakeTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static string Line(string host, string text) => $"<131>1 {DateTime.UtcNow:yyyy-MM-ddTHH:mm:ssZ} {host} storage - - - {text}";

    private async Task UdpAsync(string line)
    {
        using var udp = new UdpClient();
        await udp.SendAsync(Encoding.UTF8.GetBytes(line), "127.0.0.1", await service.Service.SyslogPortAsync(), Ct);
    }

    private async Task TcpAsync(string bytes)
    {
        using var tcp = new TcpClient();
        await tcp.ConnectAsync("127.0.0.1", await service.Service.SyslogPortAsync(), Ct);
        await tcp.GetStream().WriteAsync(Encoding.UTF8.GetBytes(bytes), Ct);
    }

    /// <summary>Asks until it is so; what came in is taken to its ticket within moments.</summary>
    private static Task<T> SoonAsync<T>(Func<Task<T?>> ask)
        where T : class => Soon.ComesAsync(ask, Ct);

    /// <summary>Waits until somebody else subscribed at a machine that forgets: it numbers all that ask, and we ask one after the other.</summary>
    private static async Task SubscribedAsync(RunningStandIn machine)
    {
        using var http = new HttpClient { BaseAddress = machine.Address };
        var before = await AskAsync();
        await Soon.IsAsync(async () => await AskAsync() > ++before, Ct);

        async Task<int> AskAsync()
        {
            using var ask = new StringContent("""{"Destination":"http://127.0.0.1:9/nobody","Protocol":"Redfish"}""");
            using var answer = await http.PostAsync("redfish/v1/EventService/Subscriptions", ask, Ct);
            return int.Parse(answer.Headers.Location!.OriginalString.Split('/')[^1], CultureInfo.InvariantCulture);
        }
    }

    private async Task<IntakeView> SettledAsync(string text) =>
        await SoonAsync(async () =>
        {
            var dorrik = await service.AsAsync("dorrik");
            var all = new List<IntakeView>();
            foreach (var outcome in new[] { "joined", "ignored", "unmatched", "unknown-sender" })
                all.AddRange((await dorrik.IntakeAsync(outcome, Ct)).Items);
            return all.Find(i => i.Text.Contains(text, StringComparison.Ordinal));
        });

    [Fact]
    public async Task A_line_that_a_rule_understands_opens_a_ticket_that_knows_what_it_is_about()
    {
        await UdpAsync(Line("tollardt5-06", "drive in bay 3 went offline"));

        var kept = await SettledAsync("tollardt5-06");

        var ticket = await (await service.AsAsync("dorrik")).TicketAsync(kept.Ticket ?? 0, Ct);
        (ticket.Report.Asset, ticket.Report.Bay, ticket.Report.Symptom).ShouldBe(("FSC-0406", "3", "drive in bay 3 went offline"));
        ticket.Deadlines.ShouldNotBeEmpty(); // the site's promise came along
    }

    [Fact]
    public async Task What_one_message_stumbles_over_stops_no_other_and_waits_for_a_person()
    {
        AboutTheFile.Only();
        // As an earlier release may have left it: nobody can read what was made of it.
        await using (var database = new SqliteConnection($"Data Source={service.Service.DatabaseFile}"))
        {
            await database.OpenAsync(Ct);
            await using var put = database.CreateCommand();
            put.CommandText =
                "INSERT INTO intake (id, received_at, via, sender, text, outcome, asset, pending) SELECT $id, 0, "
                + "'syslog', '127.0.0.1', 'poison for the joiner', 'Pending', 'FSC-0414', '{\"was\":1'";
            put.Parameters.AddWithValue("$id", Guid.NewGuid().ToString().ToUpperInvariant());
            await put.ExecuteNonQueryAsync(Ct);
        }

        await UdpAsync(Line("brackmerex60-14", "drive in bay 4 went offline"));

        (await SettledAsync("bay 4 went offline")).Outcome.ShouldBe("joined");
        (await SettledAsync("poison for the joiner")).Outcome.ShouldBe("unmatched");
    }

    [Fact]
    public async Task A_line_that_is_longer_than_an_entry_takes_opens_its_ticket_all_the_same()
    {
        await TcpAsync(Line("ostlaner16-29", $"drive in bay 5 went offline {new string('x', 6_000)}") + "\n");

        var kept = await SettledAsync("bay 5 went offline");

        var ticket = await (await service.AsAsync("dorrik")).TicketAsync(kept.Ticket ?? 0, Ct);
        ticket
            .Evidence.Select(e => e.Text)
            .Append(ticket.Report.Symptom)
            .ShouldContain(t =>
                t.StartsWith("drive in bay 5 went offline", StringComparison.Ordinal) && t.EndsWith("...", StringComparison.Ordinal)
            );
    }

    [Fact]
    public async Task The_same_said_a_hundred_times_is_one_ticket_with_a_count()
    {
        await TcpAsync(string.Concat(Enumerable.Repeat($"<131>1 - tollardt12-07 storage - - - drive in bay 2 went offline\n", 100)));

        var dorrik = await service.AsAsync("dorrik");
        var counted = await SoonAsync(async () =>
            (await dorrik.IntakeAsync("joined", Ct)).Items.Where(i => i.Text.Contains("tollardt12-07", StringComparison.Ordinal)).ToList()
                is { Count: 100 } all
                ? all
                : null
        );

        counted.Select(i => i.Ticket).Distinct().ShouldHaveSingleItem();
        var evidence = (await dorrik.TicketAsync(counted[0].Ticket ?? 0, Ct)).Evidence;
        evidence.Count.ShouldBeLessThan(10);
        (evidence.Max(e => e.Count) ?? 0).ShouldBeGreaterThanOrEqualTo(64);
    }

    [Fact]
    public async Task Both_ways_of_framing_may_be_mixed_on_one_connection_and_nonsense_ends_it_alone()
    {
        var counted = "<131>1 - tollardt12-33 storage - - - self-test failed on serial P8FRAME001";
        await TcpAsync($"{counted.Length} {counted}<131>1 - tollardt12-33 storage - - - vibration beyond anything\n99999999999 x");

        (await SettledAsync("P8FRAME001")).Outcome.ShouldBe("joined");
        (await SettledAsync("vibration beyond")).Outcome.ShouldBe("unmatched");
        await UdpAsync(Line("tollardt12-33", "session opened"));
        (await SettledAsync("session opened")).Outcome.ShouldBe("ignored");
    }

    [Fact]
    public async Task What_nobody_understood_becomes_a_rule_and_then_a_ticket()
    {
        await UdpAsync(Line("ostlaner16-16", "slot S4 says farewell"));
        (await SettledAsync("says farewell")).Outcome.ShouldBe("unmatched");
        var dorrik = await service.AsAsync("dorrik");
        var rule = new IntakeRule("farewell", @"slot S(?<bay>\d+) says farewell", Kind: EvidenceKind.Alert);

        var tried = await dorrik.TryLineAsync(new(Line("ostlaner16-16", "slot S4 says farewell"), rule), Ct);
        (tried.Rule, tried.Bay).ShouldBe(("farewell", "4"));
        (await dorrik.PutRuleAsync(rule, Ct)).Understood.ShouldBe(1);

        var joined = await SoonAsync(async () =>
            (await dorrik.IntakeAsync("joined", Ct)).Items.FirstOrDefault(i => i.Text.Contains("farewell", StringComparison.Ordinal))
        );
        (await dorrik.TicketAsync(joined.Ticket ?? 0, Ct)).Report.Bay.ShouldBe("4");
    }

    [Fact]
    public async Task A_line_of_a_sender_nobody_knows_waits_for_a_person_who_says_whose_it_is()
    {
        await UdpAsync(Line("stranger-1", "drive in bay 1 went offline"));
        var kept = await SettledAsync("stranger-1");
        var dorrik = await service.AsAsync("dorrik");

        var receipt = await dorrik.SettleIntakeAsync(kept.Id, new("FSC-0432", "1"), Ct);

        (await dorrik.TicketAsync(receipt?.Ticket ?? 0, Ct)).Report.Asset.ShouldBe("FSC-0432");
        (await Should.ThrowAsync<ApiProblem>(() => dorrik.SettleIntakeAsync(kept.Id, new(null), Ct))).Message.ShouldBe(
            $"It is joined already, on T-{receipt?.Ticket}."
        );
    }

    [Fact]
    public async Task What_a_sender_says_again_and_again_is_shown_once_and_put_aside_and_taken_back_as_one()
    {
        for (var times = 0; times < 3; times++)
            await UdpAsync(Line("stranger-2", $"a cricket sings, {(times == 2 ? "loudly" : "softly")}"));
        var dorrik = await service.AsAsync("dorrik");
        var softly = await SoonAsync(async () =>
            (await dorrik.IntakeAsync(null, Ct)).Items.FirstOrDefault(i =>
                i is { Times: 2 } && i.Text.Contains("softly", StringComparison.Ordinal)
            )
        );
        (await SettledAsync("loudly")).Times.ShouldBe(1); // other words are another thing to look at
        (softly.First <= softly.ReceivedAt).ShouldBeTrue();

        (await dorrik.SettleIntakeAsync(softly.Id, new(null), Ct)).ShouldBeNull();
        (await dorrik.IntakeAsync(null, Ct)).Items.ShouldNotContain(i => i.Text.Contains("softly", StringComparison.Ordinal));
        (await dorrik.IntakeAsync("settled", Ct)).Items.Single(i => i.Text.Contains("softly", StringComparison.Ordinal)).Times.ShouldBe(2);

        await dorrik.TakeBackIntakeAsync(softly.Id, Ct);
        var again = (await dorrik.IntakeAsync(null, Ct)).Items.Single(i => i.Text.Contains("softly", StringComparison.Ordinal));
        var receipt = await dorrik.SettleIntakeAsync(again.Id, new("FSC-0432", "2"), Ct);
        (await dorrik.IntakeAsync("joined", Ct)).Items.Count(i => i.Ticket == receipt!.Ticket).ShouldBe(2); // each of them is on it
    }

    private async Task<(HttpStatusCode Status, string Said)> SendAsync(
        EventSenderView sender,
        string body,
        string id = "msg-1",
        DateTimeOffset? at = null,
        string? secret = null,
        string type = "application/cloudevents+json"
    )
    {
        using var http = service.Service.Http();
        var timestamp = $"{(at ?? DateTimeOffset.UtcNow).ToUnixTimeSeconds()}";
        using var ask = new HttpRequestMessage(HttpMethod.Post, $"api/intake/events/{sender.Name}")
        {
            Content = new ByteArrayContent(Encoding.UTF8.GetBytes(body)),
        };
        ask.Content.Headers.ContentType = MediaTypeHeaderValue.Parse(type);
        ask.Headers.Add("webhook-id", id);
        ask.Headers.Add("webhook-timestamp", timestamp);
        ask.Headers.Add("webhook-signature", Sign(secret ?? sender.Secret, $"{id}.{timestamp}.{body}"));
        using var answer = await http.SendAsync(ask, Ct);
        return (answer.StatusCode, await answer.Content.ReadAsStringAsync(Ct));
    }

    /// <summary>As docs/intake.md says, and nothing of the service's own.</summary>
    private static string Sign(string secret, string text) =>
        "v1,"
        + Convert.ToBase64String(
            System.Security.Cryptography.HMACSHA256.HashData(Encoding.UTF8.GetBytes(secret), Encoding.UTF8.GetBytes(text))
        );

    private static string Event(string id, string asset = "FSC-0434", string more = "") =>
        $$$"""{"specversion":"1.0","type":"org.nailcrow.drive-fault.v1","id":"{{{id}}}","source":"/monitor/"""
        + $$$"""7","data":{"asset":"{{{asset}}}","text":"event {{{id}}}","bay":"2"{{{more}}}}}""";

    [Fact]
    public async Task A_signed_event_sent_twice_counts_once()
    {
        var sender = await (await service.AsAsync("dorrik")).PutSenderAsync("monitor", Ct);

        (await SendAsync(sender, Event("e-1"))).Status.ShouldBe(HttpStatusCode.NoContent);
        (await SendAsync(sender, Event("e-1"))).Status.ShouldBe(HttpStatusCode.NoContent);

        var joined = await SettledAsync("event e-1");
        // it is the report, and not evidence as well
        (await (await service.AsAsync("dorrik")).TicketAsync(joined.Ticket ?? 0, Ct)).Evidence.ShouldNotContain(e => e.Text == "event e-1");
    }

    [Fact]
    public async Task A_forged_an_old_and_a_malformed_event_are_each_refused_with_a_reason()
    {
        var sender = await (await service.AsAsync("dorrik")).PutSenderAsync("other-monitor", Ct);

        (await SendAsync(sender, Event("e-2"), secret: "guessed")).Said.ShouldContain("The signature is not this sender's over this body.");
        (await SendAsync(sender, Event("e-3"), at: DateTimeOffset.UtcNow.AddMinutes(-6))).Said.ShouldContain(
            "more than 5 minutes from now"
        );
        (await SendAsync(sender with { Name = "nobody" }, Event("e-4"))).Status.ShouldBe(HttpStatusCode.Unauthorized);
        (await SendAsync(sender, "{\"specversion\":")).Said.ShouldContain("The body is not JSON, at line 1, byte ");
        (await SendAsync(sender, Event("e-5").Replace("1.0", "9"))).Said.ShouldContain("specversion is '9'; 1.0 is understood");
        (await SendAsync(sender, Event("e-6", more: ",\"kind\":\"hunch\""))).Said.ShouldContain(
            "data.kind: 'hunch' is not a kind of evidence"
        );
        (await SendAsync(sender, new string(' ', 300_000))).Status.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        (await SendAsync(sender, Event("e-7", asset: "FSC-NONE"))).Status.ShouldBe(HttpStatusCode.NoContent); // kept; a person finds out whose it is
        (await SettledAsync("event e-7")).Outcome.ShouldBe("unknown-sender");
    }

    [Theory, InlineData(true), InlineData(false)]
    public async Task A_machines_own_events_are_heard_whether_it_pushes_them_or_streams_them_and_after_it_forgot_who_asked(bool pushed)
    {
        await using var machine = await RunningStandIn.StartAsync(seed: 41);
        await using var hearing = await RunningService.StartPeopledAsync(machine.Address, hearsEverySeconds: 1, pushed: pushed);
        await machine.HandAsync("behave/forgets");
        var dorrik = await hearing.SignInAsync("dorrik");
        var admin = await hearing.SignInAsync("admin");
        var known = await admin.ApplianceAsync("FSC-0107", Ct);
        await admin.LoadAsync(new([], [], [known.Appliance with { Serial = "BRK12-0041" }]), Ct);
        if (pushed)
            await SubscribedAsync(machine);
        await machine.HandAsync("behave/well");
        // Asked again within a second or two; until then nobody would hear it.
        var ticket = await SoonAsync(async () =>
        {
            await machine.HandAsync("warn/4");
            return (await dorrik.TicketsAsync(new(Asset: "FSC-0107"), Ct)).Tickets.FirstOrDefault(t => t.Margin is not null);
        });

        ticket.Symptom.ShouldStartWith("The drive in bay 4 (");
        (ticket.Bay, ticket.Margin).ShouldBe(("4", 2)); // the machine was asked which bay that is, and how it stands
        // A second drive of the same array is this ticket's danger, at once.
        await machine.HandAsync("fail/5");
        var worse = await SoonAsync(async () => await dorrik.TicketAsync(ticket.Number, Ct) is { Danger.Margin: 1 } now ? now : null);
        worse.Danger.Suspects.ShouldContain(s => s.Bay == "5");
        // And it has a ticket of its own, which says where it was seen.
        var further = (await dorrik.TicketsAsync(new(Asset: "FSC-0107"), Ct)).Tickets.Where(t => t.Number != ticket.Number);
        (await dorrik.TicketAsync(further.ShouldHaveSingleItem().Number, Ct)).Report.SeenOn.ShouldBe(ticket.Number);
    }

    [Fact]
    public async Task A_management_address_that_leads_to_the_service_itself_or_to_a_link_local_network_is_not_asked()
    {
        var admin = await service.AsAsync("admin");
        async Task<string> AskedAsync(string asset, string address)
        {
            var known = await admin.ApplianceAsync(asset, Ct);
            await admin.LoadAsync(new([], [], [known.Appliance with { Address = address }]), Ct);
            return (await Should.ThrowAsync<ApiProblem>(() => admin.BaysAsync(asset, Ct))).Message;
        }

        (await AskedAsync("FSC-0431", service.Service.Address.ToString().TrimEnd('/'))).ShouldContain(
            $"is not asked: 127.0.0.1:{service.Service.Address.Port} is Nailcrow itself."
        );
        (await AskedAsync("FSC-0430", "http://169.254.169.254")).ShouldContain(
            "is not asked: 169.254.169.254 is no address that may be asked."
        );
        (await AskedAsync("FSC-0429", "http://[::ffff:169.254.1.1]")).ShouldContain("is no address that may be asked.");
    }
}
