using System.Net;
using System.Net.Sockets;
using System.Text;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Tickets;

/// <summary>What becomes of things when hours and days go by, with a clock that is moved on.</summary>
public sealed class HoursLaterTests(HoursLaterTests.WithClock running) : IClassFixture<HoursLaterTests.WithClock>
{
    private readonly RunningService _service = running.Service;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static async Task<long> OpenAsync(NailcrowClient by, string bay) =>
        (await by.ReportAsync(new FaultAsk("FSC-0203", "Amber lamp", Bay: bay), Ct)).Ticket;

    [Fact]
    public async Task A_rebuild_of_which_nothing_is_heard_is_no_news_and_one_that_shows_the_same_for_hours_is_stalled()
    {
        var ilka = await _service.SignInAsync("ilka");
        var ticket = await OpenAsync(ilka, "1");
        await ReadsAsync(10);
        await _service.PassesAsync(TimeSpan.FromMinutes(15));
        await ReadsAsync(12);
        (await SeenAsync()).ShouldNotBe(RebuildState.NoNews);

        await _service.PassesAsync(TimeSpan.FromMinutes(21));
        (await SeenAsync()).ShouldBe(RebuildState.NoNews);

        for (var looks = 0; looks < 12; looks++)
        {
            await ReadsAsync(12);
            await _service.PassesAsync(TimeSpan.FromMinutes(15));
        }
        (await SeenAsync()).ShouldBe(RebuildState.Stalled);

        await ReadsAsync(30);
        await _service.PassesAsync(TimeSpan.FromMinutes(15));
        await ReadsAsync(33);
        (await SeenAsync()).ShouldBe(RebuildState.Moving);

        async Task ReadsAsync(decimal percent) =>
            await ilka.WriteAsync(ticket, new ReadingTaken("catalogue", Progress.Running, RebuildPhase.Rebuilding, "panel", percent), Ct);

        async Task<RebuildState> SeenAsync() => (await ilka.TicketAsync(ticket, Ct)).Rebuild.Look.State;
    }

    [Fact]
    public async Task A_key_that_ends_soon_is_told_of_once_and_neither_one_that_ends_later_nor_one_that_was_ended()
    {
        var lioth = await _service.SignInAsync("lioth");
        var today = DateOnly.FromDateTime((await _service.PassesAsync(TimeSpan.Zero)).UtcDateTime);
        await MakeAsync("night report", 40);
        await MakeAsync("year's end", 70);
        await MakeAsync("first of all", 38); // told of two days before it, and in the same look at all of them
        await MakeAsync("last of all", 43);
        await lioth.EndKeyAsync("lioth", await MakeAsync("old report", 41), Ct);

        await _service.PassesAsync(TimeSpan.FromDays(25));
        await Soon.IsAsync(async () => (await ToldAsync()).Count > 0, Ct);
        (await ToldAsync()).ShouldBe([Ends("first of all", 38)]);
        await _service.PassesAsync(TimeSpan.FromDays(3));
        await Soon.IsAsync(async () => (await ToldAsync()).Count > 1, Ct);
        await _service.PassesAsync(TimeSpan.FromDays(2));
        await Soon.IsAsync(async () => (await ToldAsync()).Contains(Ends("last of all", 43)), Ct);

        (await ToldAsync()).Order().ShouldBe([Ends("first of all", 38), Ends("last of all", 43), Ends("night report", 40)]);

        string Ends(string name, int days) =>
            $"A key for a script that acts in your name ends soon: '{name}' on {today.AddDays(days):yyyy-MM-dd}. "
            + "Make another, and put it where this one is.";

        async Task<Guid> MakeAsync(string name, int days) =>
            (await lioth.MakeKeyAsync("lioth", new(name, today.AddDays(days), [Core.People.Role.Lead], ReadOnly: true), Ct)).Key.Id;

        async Task<List<string>> ToldAsync() =>
            [
                .. (await (await _service.SignInAsync("lioth")).ComingsInAsync("lioth", Ct))
                    .Changes.Select(c => c.Says)
                    .Where(says => says.Contains("ends soon", StringComparison.Ordinal)),
            ];
    }

    [Fact]
    public async Task A_first_password_that_nobody_used_for_a_week_lets_nobody_in_until_another_is_given()
    {
        var admin = await _service.SignInAsync("admin");
        var norra = await admin.AddPersonAsync(new("norra", "Norra Selmark", null, [Core.People.Role.Stores]), Ct);
        var first = norra.FirstPassword.ShouldNotBeNull();
        norra.Person.FirstUntil.ShouldNotBeNull();
        (await ComesInAsync(first)).ShouldBeTrue();

        await _service.PassesAsync(TimeSpan.FromDays(7.5));

        (await ComesInAsync(first)).ShouldBeFalse();
        admin = await _service.SignInAsync("admin");
        (await admin.SecurityLogAsync(null, null, null, 20, Ct)).Lines.ShouldContain(l =>
            l.By == "norra"
            && l.What == Core.People.Log.SecurityEvent.SignInRefused
            && l.Detail == "the password they were given had run out"
        );
        var next = (await admin.GivePasswordAsync("norra", null, Ct)).FirstPassword.ShouldNotBeNull();
        (await ComesInAsync(next)).ShouldBeTrue();

        async Task<bool> ComesInAsync(string password)
        {
            using var http = _service.Http();
            using var answer = await http.PostAsync(
                "api/sign-in",
                new StringContent($$"""{"name":"norra","password":"{{password}}"}""", Encoding.UTF8, "application/json"),
                Ct
            );
            return answer.IsSuccessStatusCode;
        }
    }

    [Fact]
    public async Task A_promise_that_nobody_kept_is_told_as_missed_and_stays_missed_when_somebody_comes_late()
    {
        var ilka = await _service.SignInAsync("ilka");
        var ticket = await OpenAsync(ilka, "2"); // someone there within 24 hours, around the clock
        (await RespondAsync(ilka)).MetAt.ShouldBeNull();

        var now = await _service.PassesAsync(TimeSpan.FromHours(25));

        ilka = await _service.SignInAsync("ilka");
        (await RespondAsync(ilka)).At.ShouldNotBeNull().ShouldBeLessThan(now);
        await ilka.WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);
        await ilka.WriteAsync(ticket, new ArrivedOnSite(), Ct);
        var kept = await RespondAsync(ilka);
        kept.MetAt.ShouldNotBeNull().ShouldBeGreaterThan(kept.At.ShouldNotBeNull());

        async Task<Deadline> RespondAsync(NailcrowClient by) =>
            (await by.TicketAsync(ticket, Ct)).Deadlines.Single(d => d.Kind == DeadlineKind.Respond);
    }

    [Fact]
    public async Task What_a_machine_repeats_within_hours_of_the_end_stays_there_and_what_it_says_the_next_day_is_a_new_fault()
    {
        var dorrik = await _service.SignInAsync("dorrik");
        var now = await _service.PassesAsync(TimeSpan.Zero);
        await SaysAsync("first");
        var first = (await TicketsAsync(1)).Single();
        await dorrik.WriteAsync(first, new TicketCancelled("The lamp was a mistake."), Ct);

        now = await _service.PassesAsync(TimeSpan.FromHours(5));
        await SaysAsync("again");
        await HeardAsync("again");
        (await TicketsAsync(1)).ShouldBe([first]);

        now = await _service.PassesAsync(TimeSpan.FromHours(8));
        dorrik = await _service.SignInAsync("dorrik");
        await SaysAsync("next-day");
        (await TicketsAsync(2)).ShouldContain(first);

        async Task SaysAsync(string when)
        {
            using var udp = new UdpClient();
            var line = $"<131>1 {now:yyyy-MM-ddTHH:mm:ssZ} tollardt5-06 storage {when} - - drive in bay 3 went offline";
            await udp.SendAsync(Encoding.UTF8.GetBytes(line), "127.0.0.1", await _service.SyslogPortAsync(), Ct);
        }

        Task HeardAsync(string what) =>
            Soon.IsAsync(
                async () => (await dorrik.IntakeAsync("joined", Ct)).Items.Any(i => i.Text.Contains($" {what} ", StringComparison.Ordinal)),
                Ct
            );

        async Task<IReadOnlyList<long>> TicketsAsync(int atLeast)
        {
            IReadOnlyList<long> found = [];
            await Soon.IsAsync(
                async () =>
                {
                    found = [.. (await dorrik.TicketsAsync(new(Asset: "FSC-0406"), Ct)).Tickets.Select(t => t.Number)];
                    return found.Count >= atLeast;
                },
                Ct
            );
            return found;
        }
    }

    [Fact]
    public async Task Who_signed_in_yesterday_is_asked_to_sign_in_again_and_what_was_written_stands()
    {
        var ilka = await _service.SignInAsync("ilka");
        var ticket = await OpenAsync(ilka, "3");
        await _service.PassesAsync(TimeSpan.FromHours(11));
        await ilka.WriteAsync(ticket, new NoteWritten("Eleven hours in."), Ct);

        await _service.PassesAsync(TimeSpan.FromHours(2));

        (await Should.ThrowAsync<ApiProblem>(() => ilka.TicketAsync(ticket, Ct))).Status.ShouldBe(HttpStatusCode.Unauthorized);
        var again = await _service.SignInAsync("ilka");
        (await again.JournalAsync(ticket, 0, Ct)).Told.ShouldNotBeNull().ShouldContain(t => t.Contains("Eleven hours in."));
    }

    /// <summary>One service for all of them: time only goes on.</summary>
    public sealed class WithClock : IAsyncLifetime
    {
        private RunningService? _service;

        public RunningService Service => _service ?? throw new InvalidOperationException("Not started yet.");

        public async ValueTask InitializeAsync() => _service = await RunningService.StartPeopledAsync(givenTime: true);

        public ValueTask DisposeAsync() => Service.DisposeAsync();
    }
}
