using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.RegularExpressions;
using Nailcrow.Client;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.People;

/// <summary>What is taken away counts within five seconds: for cookies, tokens, keys, open streams and running calls.</summary>
public sealed class StayingInTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static readonly TimeSpan Promised = TimeSpan.FromSeconds(5);

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Who_is_shut_out_is_out_wherever_they_were_in()
    {
        await service.Service.LetInAsync("wynn", Role.Engineer);
        var all = await EverywhereAsync("wynn");

        await (await service.AsAsync("admin")).DisablePersonAsync("wynn", "Lost the phone", Ct);

        await all.IsOutAsync();
    }

    [Fact]
    public async Task Who_signs_out_is_out_there_and_nowhere_else()
    {
        await service.Service.LetInAsync("elka", Role.Engineer);
        var (here, there) = (await EverywhereAsync("elka"), await service.Service.SignInAsync("elka"));

        await here.Token.SignOutAsync(Ct);

        (await StatusesAsync(here.Token.MeAsync(Ct))).ShouldBe(401);
        (await there.MeAsync(Ct)).Name.ShouldBe("elka");
        await here.StreamEndsAsync();
    }

    [Fact]
    public async Task A_new_password_ends_every_sign_in_but_the_one_it_was_changed_in()
    {
        await service.Service.LetInAsync("josa", Role.Engineer);
        var (here, there) = (await service.Service.SignInAsync("josa"), await EverywhereAsync("josa"));

        await here.ChangePasswordAsync(RunningService.Password, "seven grey kettles", Ct);

        (await here.MeAsync(Ct)).Name.ShouldBe("josa");
        (await StatusesAsync(there.Token.MeAsync(Ct))).ShouldBe(401);
        (await there.Cookie.GetAsync("api/me", Ct)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        await there.StreamEndsAsync();
    }

    [Fact]
    public async Task Who_may_do_more_than_when_they_asked_is_answered_however_many_choose_their_password_at_once()
    {
        var admin = await service.AsAsync("admin");
        var newcomers = new List<(NailcrowClient Client, string First)>();
        foreach (var letter in "abcdefghjkmnpqrstuxz") // none is taken for another
        {
            var name = $"newcomer-{letter}{letter}{letter}";
            var first = (await admin.AddPersonAsync(new(name, name, null, [Role.Engineer]), Ct)).FirstPassword.ShouldNotBeNull();
            var client = new NailcrowClient(service.Service.Http(), TimeProvider.System);
            client.UseToken((await client.SignInAsync(name, first, Ct)).AccessToken);
            newcomers.Add((client, first));
        }

        var changed = await Task.WhenAll(newcomers.Select(n => n.Client.ChangePasswordAsync(n.First, "seven grey kettles", Ct)));

        changed.ShouldAllBe(person => !person.MustChange);
    }

    [Fact]
    public async Task A_password_that_is_given_signs_out_everywhere_and_has_to_be_changed()
    {
        await service.Service.LetInAsync("kelm", Role.Engineer);
        var all = await EverywhereAsync("kelm");

        var given = await (await service.AsAsync("admin")).GivePasswordAsync("kelm", null, Ct);

        (await StatusesAsync(all.Token.MeAsync(Ct))).ShouldBe(401);
        await all.StreamEndsAsync();
        given.Person.MustChange.ShouldBeTrue();
    }

    [Fact]
    public async Task A_role_that_is_taken_away_counts_for_the_token_there_is_and_one_that_is_given_too()
    {
        await service.Service.LetInAsync("farrin", Role.Engineer, Role.Lead);
        var all = await EverywhereAsync("farrin");
        var admin = await service.AsAsync("admin");

        await admin.PutRolesAsync("farrin", [Role.Engineer], Ct);

        (await all.Token.MeAsync(Ct)).Roles.ShouldBe([Role.Engineer]);
        await all.StreamEndsAsync();
        (await StatusesAsync(all.Token.SecurityLogAsync(null, null, null, 1, Ct))).ShouldBe(403);
        await admin.PutRolesAsync("farrin", [Role.Engineer, Role.Admin], Ct);
        (await all.Token.SecurityLogAsync(null, null, null, 1, Ct)).Lines.Count.ShouldBe(1);
    }

    [Fact]
    public async Task One_sees_ones_sign_ins_and_ends_one_of_them()
    {
        await service.Service.LetInAsync("perrin", Role.Engineer);
        var here = await service.Service.SignInAsync("perrin");
        var there = await EverywhereAsync("perrin");
        var mine = (await here.ComingsInAsync("perrin", Ct)).Sessions;
        mine.Single(s => s.This).Device.ShouldBe("a program that does not say which");
        mine.Count.ShouldBe(4); // the first day, here, a token and a cookie

        foreach (var session in mine.Where(s => !s.This))
            await here.EndSessionAsync("perrin", session.Id, Ct);

        (await StatusesAsync(there.Token.MeAsync(Ct))).ShouldBe(401);
        (await there.Cookie.GetAsync("api/me", Ct)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await here.ComingsInAsync("perrin", Ct)).Sessions.ShouldHaveSingleItem().This.ShouldBeTrue();
        (await StatusesAsync(here.EndSessionAsync("perrin", mine[^1].Id, Ct))).ShouldBe(404);
    }

    [Fact]
    public async Task Nobody_sees_or_ends_what_others_are_signed_in_with_but_an_administrator()
    {
        await service.Service.LetInAsync("ulva", Role.Engineer);
        var ulva = await service.Service.SignInAsync("ulva");
        var (ilka, admin) = (await service.AsAsync("ilka"), await service.AsAsync("admin"));
        var hers = (await admin.ComingsInAsync("ulva", Ct)).Sessions[0];

        (await StatusesAsync(ilka.ComingsInAsync("ulva", Ct))).ShouldBe(403);
        (await StatusesAsync(ilka.EndSessionAsync("ulva", hers.Id, Ct))).ShouldBe(403);
        (await StatusesAsync(ilka.EndSessionAsync("ilka", hers.Id, Ct))).ShouldBe(404);
        await admin.EndSessionAsync("ulva", hers.Id, Ct);

        (await StatusesAsync(ulva.MeAsync(Ct))).ShouldBe(401);
    }

    [Fact]
    public async Task A_sign_in_outlives_a_restart_and_what_was_ended_stays_ended()
    {
        await using var first = await RunningService.StartPeopledAsync();
        var (kept, ended) = (await first.SignInAsync("ilka"), await first.SignInAsync("ilka"));
        var (keptToken, endedToken) = (TokenOf(kept), TokenOf(ended));
        await ended.SignOutAsync(Ct);
        await using var again = await first.StartsAnewAsync();

        (await StatusAsync(again, keptToken)).ShouldBe(200);
        (await StatusAsync(again, endedToken)).ShouldBe(401);
    }

    [Fact]
    public async Task On_the_machine_itself_an_administrator_is_let_back_in_beside_the_running_service()
    {
        await using var own = await RunningService.StartPeopledAsync();
        var before = await own.SignInAsync("admin");
        await own.LetInAsync("mareth", Role.Admin);
        var mareth = await own.SignInAsync("mareth");
        await mareth.DisablePersonAsync("admin", "A slip", Ct);
        (await StatusesAsync(before.MeAsync(Ct))).ShouldBe(401);
        using var stream = await ListenAsync(own, TokenOf(mareth));

        var said = await AdmitAsync(own, "admin");
        await AdmitAsync(own, "mareth");

        var password = said.Split("with the password ")[1].Split(',')[0];
        var back = new NailcrowClient(own.Http(), TimeProvider.System);
        back.UseToken((await back.SignInAsync("admin", password, Ct)).AccessToken);
        (await back.ChangePasswordAsync(password, RunningService.Password, Ct)).Roles.ShouldBe([Role.Admin]);
        await EndsAsync(stream); // mareth was in elsewhere, and her password is another now: known from the database alone
        (await StatusesAsync(mareth.MeAsync(Ct))).ShouldBe(401);
        (await AdmitAsync(own, "nai1crow", code: 1)).ShouldContain("could be taken for the service itself");
    }

    [Fact]
    public async Task A_database_of_another_release_is_told_as_that_and_nothing_is_done_to_it()
    {
        AboutTheFile.Only();
        await using var own = await RunningService.StartPeopledAsync();
        Execute(own, "ALTER TABLE AspNetUsers RENAME COLUMN must_change TO of_another_release");

        (await AdmitAsync(own, "admin", code: 1)).ShouldBe(
            "That database is not of this version; start this version of the service once, which brings it up to date.\n"
        );

        Execute(own, "ALTER TABLE AspNetUsers RENAME COLUMN of_another_release TO must_change");
        (await (await own.SignInAsync("admin")).MeAsync(Ct)).MustChange.ShouldBeFalse();
    }

    [Fact]
    public async Task What_a_database_refuses_is_told_in_its_own_words_and_not_as_one_of_another_release()
    {
        AboutTheFile.Only();
        await using var own = await RunningService.StartPeopledAsync();
        Execute(own, "CREATE TRIGGER nobody_comes_in BEFORE UPDATE ON AspNetUsers BEGIN SELECT RAISE(ABORT, 'nobody comes in today'); END");

        var said = await AdmitAsync(own, "admin", code: 1);

        said.ShouldContain("nobody comes in today");
        said.ShouldNotContain("not of this version");
    }

    [Fact]
    public async Task A_key_may_what_it_was_made_for_until_its_owner_may_it_no_more()
    {
        await service.Service.LetInAsync("runa", Role.Engineer, Role.Dispatcher);
        var runa = await service.Service.SignInAsync("runa");
        var today = DateOnly.FromDateTime(DateTime.UtcNow);
        var ticket = await service.OpenAsync();
        var reads = With(
            (await runa.MakeKeyAsync("runa", new("night report", today, [Role.Engineer, Role.Dispatcher], ReadOnly: true), Ct)).Secret
        );
        var writes = With((await runa.MakeKeyAsync("runa", new("desk", today.AddDays(30), [Role.Engineer]), Ct)).Secret);

        (await reads.MeAsync(Ct)).Roles.ShouldBe([Role.Engineer, Role.Dispatcher]);
        (await Should.ThrowAsync<ApiProblem>(() => reads.WriteAsync(ticket, new NoteWritten("x"), Ct))).Message.ShouldBe(
            "This key reads only; make one that also writes, or sign in."
        );
        (await writes.MeAsync(Ct)).Roles.ShouldBe([Role.Engineer]);
        await writes.WriteAsync(ticket, new NoteWritten("By a script"), Ct);
        (await Should.ThrowAsync<ApiProblem>(() => writes.MakeKeyAsync("runa", new("more", today, [Role.Engineer]), Ct))).Message.ShouldBe(
            "A script's key cannot do that; sign in with your name and password."
        );
        (await StatusesAsync(writes.ChangePasswordAsync(RunningService.Password, "seven grey kettles", Ct))).ShouldBe(403);

        var admin = await service.AsAsync("admin");
        await admin.PutRolesAsync("runa", [Role.Stores], Ct);
        (await writes.MeAsync(Ct)).Roles.ShouldBeEmpty();
        var key = (await admin.ComingsInAsync("runa", Ct)).Keys.Single(k => k.Name == "night report");
        await admin.EndKeyAsync("runa", key.Id, Ct);

        (await StatusesAsync(reads.MeAsync(Ct))).ShouldBe(401);
    }

    [Theory]
    [InlineData("", 0, null, "A key has a name of 1 to 60 characters that can be seen, such as 'night report'.")]
    [InlineData("late", -1, null, "A key is good until")]
    [InlineData("long", 400, null, "A key is good until")]
    [InlineData("more", 0, Role.Admin, "You are no admin, and no key of yours is; your roles: engineer.")]
    public async Task A_key_that_cannot_be_is_refused_with_what_could(string name, int days, Role? role, string reason)
    {
        var ilka = await service.AsAsync("ilka");
        var until = DateOnly.FromDateTime(DateTime.UtcNow).AddDays(days);

        var no = await Should.ThrowAsync<ApiProblem>(() => ilka.MakeKeyAsync("ilka", new(name, until, [role ?? Role.Engineer]), Ct));

        ((int)no.Status).ShouldBe(422);
        no.Message.ShouldStartWith(reason);
    }

    [Fact]
    public async Task Key_that_is_not_whole_or_of_another_opens_nothing()
    {
        var ilka = await service.AsAsync("ilka");
        var secret = (await ilka.MakeKeyAsync("ilka", new("whole", DateOnly.FromDateTime(DateTime.UtcNow), [Role.Engineer]), Ct)).Secret;

        foreach (
            var wrong in new[]
            {
                secret[..^1],
                secret + "x",
                secret.Split('.')[0] + "." + secret.Split('.')[1] + ".",
                "nailcrow-key.",
                "nailcrow-key.x.y",
            }
        )
            (await StatusesAsync(With(wrong).MeAsync(Ct))).ShouldBe(401);
        (await With(secret).MeAsync(Ct)).Name.ShouldBe("ilka");
    }

    private NailcrowClient With(string token)
    {
        var client = new NailcrowClient(service.Service.Http(), TimeProvider.System);
        client.UseToken(token);
        return client;
    }

    private static async Task<int> StatusesAsync(Task call)
    {
        try
        {
            await call;
            return 200;
        }
        catch (ApiProblem no)
        {
            return (int)no.Status;
        }
    }

    private async Task<Everywhere> EverywhereAsync(string name)
    {
        var token = await service.Service.SignInAsync(name);
        var cookie = service.Service.Http();
        (
            await cookie.PostAsJsonAsync("api/sign-in/console", new { name, password = RunningService.Password }, Ct)
        ).EnsureSuccessStatusCode();
        return new(token, cookie, await ListenAsync(service.Service, TokenOf(token)));
    }

    private sealed record Everywhere(NailcrowClient Token, HttpClient Cookie, StreamReader Stream)
    {
        public Task StreamEndsAsync() => EndsAsync(Stream);

        public async Task IsOutAsync()
        {
            (await StatusesAsync(Token.MeAsync(Ct))).ShouldBe(401);
            (await Cookie.GetAsync("api/me", Ct)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
            await StreamEndsAsync();
        }
    }

    private static async Task EndsAsync(StreamReader stream)
    {
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(Ct);
        patience.CancelAfter(Promised);
        while (await stream.ReadLineAsync(patience.Token) is not null)
        {
            // What was said before it ended.
        }
    }

    private static async Task<StreamReader> ListenAsync(RunningService to, string token)
    {
        var http = to.Http();
        http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);
        var answer = await http.GetAsync("api/live", HttpCompletionOption.ResponseHeadersRead, Ct);
        answer.EnsureSuccessStatusCode();
        return new StreamReader(await answer.Content.ReadAsStreamAsync(Ct));
    }

    private static async Task<int> StatusAsync(RunningService of, string token)
    {
        using var http = of.Http();
        http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);
        return (int)(await http.GetAsync("api/me", Ct)).StatusCode;
    }

    [Fact]
    public async Task A_second_factor_is_asked_for_after_a_restart_and_forgotten_of_whoever_is_admitted_on_the_machine()
    {
        await using var own = await RunningService.StartPeopledAsync();
        own.NotRestartedBecause = "the test does so";
        var admin = await own.SignInAsync("admin");
        var device = new CodeDevice((await admin.OfferCodesAsync(RunningService.Password, Ct)).Key);
        await admin.TakeCodesAsync(device.Shows(DateTimeOffset.UtcNow), Ct);

        await using var again = await own.StartsAnewAsync();
        var client = new NailcrowClient(again.Http(), TimeProvider.System);
        (await Should.ThrowAsync<ApiProblem>(() => client.SignInAsync("admin", RunningService.Password, Ct))).Type.ShouldBe(
            ProblemTypes.SecondFactor
        );
        await client.SignInAsync("admin", RunningService.Password, Ct, device.Shows(DateTimeOffset.UtcNow.AddSeconds(30)));
        var first = Regex.Match(await AdmitAsync(again, "admin"), "with the password (\\S+),").Groups[1].Value;
        client.UseToken((await client.SignInAsync("admin", first, Ct)).AccessToken);
        (await client.MeAsync(Ct)).HasSecondFactor.ShouldBe(false);
    }

    private static string TokenOf(NailcrowClient client) =>
        client.Token ?? throw new InvalidOperationException("Nobody is signed in with it.");

    private static void Execute(RunningService on, string sql)
    {
        using var connection = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={on.DatabaseFile}");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    private static async Task<string> AdmitAsync(RunningService beside, string name, int code = 0)
    {
        var (ended, said) = await ServiceCommand.RunAsync(
            Ct,
            [
                "admit",
                name,
                "--Nailcrow:Data",
                beside.DatabaseFile,
                "--Nailcrow:PasswordRounds",
                "1000",
                .. await beside.DatabaseSettingAsync(),
            ]
        );
        ended.ShouldBe(code, said);
        return said;
    }
}
