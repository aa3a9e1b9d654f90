using System.Net;
using System.Net.Http.Headers;
using System.Text;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Waiting;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Tickets;

public sealed class TicketTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Several_alerts_of_one_drive_are_one_ticket()
    {
        var ilka = await service.AsAsync("ilka");

        var first = await ilka.ReportAsync(new FaultAsk("FSC-0311", "Beeper", Bay: "3", Serial: "T4SERIAL33"), Ct);
        var second = await ilka.ReportAsync(new FaultAsk("FSC-0311", "Mail: degraded", Serial: "s/n t4serial33"), Ct);
        var other = await ilka.ReportAsync(new FaultAsk("FSC-0311", "Another lamp", Bay: "4"), Ct);

        second.Ticket.ShouldBe(first.Ticket);
        other.Ticket.ShouldNotBe(first.Ticket);
        (await ilka.TicketAsync(first.Ticket, Ct)).Evidence.Select(e => e.Text).ShouldBe(["Mail: degraded"]);
    }

    [Fact]
    public async Task A_report_sent_twice_opens_one_ticket()
    {
        var ilka = await service.AsAsync("ilka");
        var fault = new FaultAsk("FSC-0203", "Beeper", Bay: "8", Id: Guid.CreateVersion7());

        var (first, again) = (await ilka.ReportAsync(fault, Ct), await ilka.ReportAsync(fault, Ct));

        (again.Ticket, again.Seq, again.Repeated).ShouldBe((first.Ticket, 1, true));
    }

    [Fact]
    public async Task Two_people_on_one_ticket_both_keep_what_they_saw()
    {
        var ticket = await service.OpenAsync();

        var receipts = await Task.WhenAll(
            Enumerable.Range(0, 40).Select(i => service.WriteAsync(i % 2 == 0 ? "ilka" : "tamsel", ticket, new NoteWritten($"{i}")))
        );

        receipts.Select(r => r.Seq).Order().ShouldBe(Enumerable.Range(2, 40).Select(i => (long)i));
    }

    [Fact]
    public async Task A_device_whose_clock_is_wrong_is_corrected_by_the_offset_it_shows()
    {
        var ticket = await service.OpenAsync();
        var (lately, wrongNow) = (TimeSpan.FromMinutes(10), DateTimeOffset.UtcNow.AddHours(5));

        await (await service.AsAsync("ilka")).WriteAsync(
            ticket,
            new EntryAsk(new NoteWritten("Ten minutes ago"), Guid.CreateVersion7(), wrongNow - lately, wrongNow),
            Ct
        );

        var entry = (await (await service.AsAsync("ilka")).JournalAsync(ticket, 1, Ct)).Entries.Single();
        (entry.RecordedAt - entry.Happened).ShouldBe(lately, TimeSpan.FromSeconds(2));
        (await (await service.AsAsync("ilka")).TicketAsync(ticket, Ct)).Discrepancies.ShouldBeEmpty();
    }

    [Theory]
    [InlineData(0)]
    [InlineData(5)]
    [InlineData(-70)]
    public async Task On_a_slow_line_the_way_of_a_message_is_not_taken_for_the_clock_of_its_sender(int hoursAhead)
    {
        var (ticket, line) = (await service.OpenAsync(), new SlowLine());
        var time = new ShiftedClock(TimeSpan.FromHours(hoursAhead));
        var ilka = new NailcrowClient(new HttpClient(line) { BaseAddress = service.Service.Address }, time);
        ilka.UseToken((await ilka.SignInAsync("ilka", RunningService.Password, Ct)).AccessToken);
        await ilka.TicketAsync(ticket, Ct);

        line.Takes = TimeSpan.FromSeconds(3);
        await ilka.WriteAsync(ticket, new HelpCalled("The label is torn off."), Ct);
        line.Takes = TimeSpan.Zero;
        await ilka.WriteAsync(ticket, new NoteWritten("It lay behind the cage."), Ct);

        var entries = (await ilka.JournalAsync(ticket, 1, Ct)).Entries;
        (entries[0].RecordedAt - entries[0].Happened).ShouldBeInRange(TimeSpan.FromSeconds(1.5), TimeSpan.FromMinutes(2)); // not hours, and not at once
        entries[0].Happened.ShouldBeLessThan(entries[1].Happened);
        Math.Abs(entries[0].ClockOffsetMs + hoursAhead * 3_600_000L).ShouldBeLessThan(2_000);
    }

    [Fact]
    public async Task A_clock_is_not_believed_to_be_where_its_own_message_shows_that_it_is_not()
    {
        var (ticket, ilka) = (await service.OpenAsync(), await service.AsAsync("ilka"));
        var now = DateTimeOffset.UtcNow;

        await ilka.WriteAsync(ticket, new EntryAsk(new NoteWritten("Yesterday?"), null, now, now, ClockBehindMs: -86_400_000), Ct);
        await ilka.WriteAsync(ticket, new EntryAsk(new NoteWritten("Tomorrow?"), null, now, now, ClockBehindMs: 86_400_000), Ct);
        await ilka.WriteAsync(ticket, new EntryAsk(new NoteWritten("Ever?"), null, now, now, ClockBehindMs: long.MinValue), Ct);

        (await ilka.JournalAsync(ticket, 1, Ct)).Entries.Select(e => e.ClockOffsetMs).ShouldBe([0L, 0, 0]);
    }

    /// <summary>Everything that is sent takes so long until it is there.</summary>
    private sealed class SlowLine() : DelegatingHandler(new HttpClientHandler())
    {
        public TimeSpan Takes { get; set; }

        protected override async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken ct)
        {
            await Task.Delay(Takes, ct);
            return await base.SendAsync(request, ct);
        }
    }

    private sealed class ShiftedClock(TimeSpan by) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => DateTimeOffset.UtcNow + by;
    }

    [Fact]
    public async Task Each_role_does_its_own_and_no_other()
    {
        var ticket = await service.OpenAsync();

        (await service.RefusedAsync("ilka", ticket, new PartReserved("C8NEWW2286", "C8", 1, "Stores"))).ShouldBe(
            (403, "ilka may not do this; it takes the role stores or dispatcher or lead.")
        );
        (await service.RefusedAsync("sefa", ticket, new TicketCancelled("No"))).ShouldBe(
            (403, "sefa may not do this; it takes the role dispatcher or lead.")
        );
        (await service.RefusedAsync("dorrik", ticket, new HelpAnswered(true, "Go"))).ShouldBe(
            (403, "dorrik may not do this; it takes the role lead.")
        );
        (await service.RefusedAsync("admin", ticket, new NoteWritten("x"))).Status.ShouldBe(403);
        (await service.WriteAsync("dorrik", ticket, new EngineerAssigned("ilka"))).Stage.ShouldBe(Stage.Planned);
    }

    [Fact]
    public async Task A_reading_above_100_is_refused_one_below_the_last_is_asked_for_again_and_a_second_is_a_falling_back()
    {
        var ticket = await service.OpenAsync();
        ReadingTaken At(decimal percent) => new("catalogue", Progress.Running, RebuildPhase.Rebuilding, "person", percent);

        (await service.RefusedAsync("ilka", ticket, At(140))).ShouldBe(
            (422, "140 % is not a reading; a screen shows 0 to 100. If it shows none, leave the percentage out.")
        );
        await service.WriteAsync("ilka", ticket, At(40));
        await service.WriteAsync("ilka", ticket, At(10));
        (await LookAsync(ticket)).State.ShouldBe(RebuildState.ReadAgain);
        await service.WriteAsync("ilka", ticket, At(11));

        (await LookAsync(ticket)).State.ShouldBe(RebuildState.FellBack);
    }

    [Fact]
    public async Task A_slip_in_a_reading_is_taken_back_and_what_nobody_typed_is_not()
    {
        var ticket = await service.OpenAsync();
        await service.WriteAsync("ilka", ticket, new ReadingTaken("catalogue", Progress.Done, RebuildPhase.Rebuilding, Reading.Person));
        var typed = (await (await service.AsAsync("ilka")).TicketAsync(ticket, Ct)).Rebuild.Readings[^1];

        (await service.RefusedAsync("tamsel", ticket, new ReadingTakenBack(typed.At.AddSeconds(1)))).Status.ShouldBe(422);
        await service.WriteAsync("tamsel", ticket, new ReadingTakenBack(typed.At));

        (await LookAsync(ticket)).State.ShouldBe(RebuildState.NotSeen);
    }

    [Fact]
    public async Task A_ticket_that_is_not_there_is_said_to_be_not_there() =>
        (await Should.ThrowAsync<ApiProblem>(async () => await (await service.AsAsync("ilka")).TicketAsync(999_999, Ct))).Message.ShouldBe(
            "T-999999 does not exist."
        );

    [Theory]
    [InlineData(
        "api/tickets",
        """{"asset":"x","symptom":"s","job":"foo"}""",
        400,
        "The body cannot be read at $.job: accepted there: fault, early, growth, addition."
    )]
    [InlineData("api/tickets", """{"asset":"x"}""", 400, "The body cannot be read: it lacks 'symptom'.")]
    [InlineData(
        "api/tickets",
        """{"asset":"nowhere","symptom":"s"}""",
        422,
        "No appliance has the asset number 'nowhere'. What you said is kept in the intake list. If the machine is new, add it "
            + "(Machines, or 'nailcrow appliance add NOWHERE'), and make the ticket there; if the number was a slip, report it again."
    )]
    [InlineData(
        "api/tickets/1001/entries",
        """{"body":{"kind":"note-written","text":"a"},"id":"nope"}""",
        400,
        "The body cannot be read at $.id: accepted there: a UUID."
    )]
    [InlineData("api/tickets/1001/entries", "", 400, "Send a body, as JSON; /api/openapi.json says what is in it.")]
    [InlineData("api/no-such-thing", "{}", 404, "There is no /api/no-such-thing here; /api/openapi.json lists what there is.")]
    public async Task What_cannot_be_read_is_told_with_what_would_be_accepted(string path, string body, int status, string sentence)
    {
        using var http = await SignedInAsync("ilka");

        using var answer = await http.PostAsync(path, new StringContent(body, Encoding.UTF8, "application/json"), Ct);

        var problem = System.Text.Json.JsonSerializer.Deserialize(await answer.Content.ReadAsStringAsync(Ct), ContractJson.Default.Problem);
        ((int)answer.StatusCode, problem?.Detail).ShouldBe((status, sentence));
        answer.Content.Headers.ContentType?.MediaType.ShouldBe("application/problem+json");
    }

    [Theory, InlineData("api/tickets"), InlineData("api/live"), InlineData("api/admin/backup"), InlineData("api/people")]
    public async Task Nobody_comes_in_without_signing_in(string path)
    {
        using var http = service.Service.Http();

        (await http.GetAsync(path, Ct)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Theory, InlineData("api/admin/backup"), InlineData("api/admin/reference")]
    public async Task Care_of_the_house_takes_an_admin(string path)
    {
        using var http = await SignedInAsync("lioth");

        var answer = path.EndsWith("backup", StringComparison.Ordinal)
            ? await http.GetAsync(path, Ct)
            : await http.PostAsync(path, new StringContent("{}", Encoding.UTF8, "application/json"), Ct);

        answer.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task A_change_to_an_appliance_is_made_only_on_the_version_one_saw()
    {
        using var http = await SignedInAsync("dorrik");
        var seen = await http.GetAsync("api/appliances/FSC-0311", Ct);
        var appliance = System
            .Text.Json.JsonSerializer.Deserialize(await seen.Content.ReadAsStringAsync(Ct), ContractJson.Default.ApplianceView)!
            .Appliance with
        {
            Location = "Instrument hut, upper shelf",
        };
        async Task<HttpStatusCode> Change(string? version)
        {
            using var ask = new HttpRequestMessage(HttpMethod.Put, "api/appliances/FSC-0311")
            {
                Content = System.Net.Http.Json.JsonContent.Create(appliance),
            };
            if (version is not null)
                ask.Headers.TryAddWithoutValidation("If-Match", version);
            return (await http.SendAsync(ask, Ct)).StatusCode;
        }

        (await Change(null)).ShouldBe((HttpStatusCode)428);
        (await Change(seen.Headers.ETag?.Tag)).ShouldBe(HttpStatusCode.OK);
        (await Change(seen.Headers.ETag?.Tag)).ShouldBe(HttpStatusCode.PreconditionFailed);
    }

    [Fact]
    public async Task Pages_of_tickets_follow_one_another_without_gap_or_repeat()
    {
        for (var i = 0; i < 5; i++)
            await service.OpenAsync();
        var ilka = await service.AsAsync("ilka");

        var (numbers, before) = (new List<long>(), (long?)null);
        do
        {
            var page = await ilka.TicketsAsync(new TicketSearch(Limit: 2, Before: before), Ct);
            numbers.AddRange(page.Tickets.Select(t => t.Number));
            before = page.Next;
        } while (before is not null);

        numbers.ShouldBe(numbers.Distinct().OrderDescending());
        numbers.Count.ShouldBeGreaterThanOrEqualTo(5);
    }

    private async Task<HttpClient> SignedInAsync(string name)
    {
        var http = service.Service.Http();
        var token = await new NailcrowClient(http, TimeProvider.System).SignInAsync(name, RunningService.Password, Ct);
        http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token.AccessToken);
        return http;
    }

    private async Task<RebuildLook> LookAsync(long ticket) => (await (await service.AsAsync("ilka")).TicketAsync(ticket, Ct)).Rebuild.Look;
}
