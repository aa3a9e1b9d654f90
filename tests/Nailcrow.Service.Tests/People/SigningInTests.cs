using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Nailcrow.Client;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.People;

public sealed class SigningInTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static StringContent Json(string text) => new(text, Encoding.UTF8, "application/json");

    private async Task<(int Status, string Sentence, TimeSpan? After)> TryAsync(string name, string password)
    {
        using var http = service.Service.Http();
        using var answer = await http.PostAsJsonAsync("api/sign-in", new { name, password }, Ct);
        var said = await answer.Content.ReadFromJsonAsync<JsonElement>(Ct);
        return (
            (int)answer.StatusCode,
            said.TryGetProperty("detail", out var detail) ? detail.GetString()! : "",
            answer.Headers.RetryAfter?.Delta
        );
    }

    [Fact]
    public async Task A_wrong_password_a_name_nobody_has_and_somebody_shut_out_are_answered_alike()
    {
        await service.Service.LetInAsync("brisa", Role.Engineer);
        await (await service.AsAsync("admin")).DisablePersonAsync("brisa", "Lost her phone", Ct);

        var wrong = await TryAsync("tamsel", "not-the-right-one");
        var nobody = await TryAsync("nobody-at-all", "not-the-right-one");
        var shutOut = await TryAsync("brisa", RunningService.Password);

        wrong.ShouldBe((401, "Name and password do not go together.", null));
        nobody.ShouldBe(wrong);
        shutOut.ShouldBe(wrong);
    }

    [Theory]
    [InlineData("sefa")]
    [InlineData("nobody-of-that-name")]
    public async Task Guessing_is_slowed_down_alike_for_names_there_are_and_names_there_are_not(string name)
    {
        for (var guess = 0; guess < 5; guess++)
            (await TryAsync(name, $"guess-number-{guess}")).Status.ShouldBe(401);

        var slowed = await TryAsync(name, RunningService.Password);

        slowed.Status.ShouldBe(429);
        slowed.Sentence.ShouldStartWith("Too many wrong passwords were tried; try again in ");
        slowed.After!.Value.ShouldBeInRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(2));
    }

    [Fact]
    public async Task A_hundred_guesses_at_once_are_a_hundred_guesses()
    {
        var all = await Task.WhenAll(Enumerable.Range(0, 100).Select(i => TryAsync("an-attackers-aim", $"guess-number-{i}")));

        all.Count(a => a.Status == 401).ShouldBe(5);
        all.Count(a => a.Status == 429).ShouldBe(95);
    }

    [Fact]
    public async Task Whoever_has_the_password_comes_in_as_often_at_once_as_they_like()
    {
        await service.Service.LetInAsync("scripta", Role.Engineer);

        var all = await Task.WhenAll(Enumerable.Range(0, 40).Select(_ => TryAsync("scripta", RunningService.Password)));

        all.ShouldAllBe(a => a.Status == 200);
    }

    [Fact]
    public async Task Whoever_guesses_a_name_does_not_shut_out_the_person_whose_it_is()
    {
        await service.Service.LetInAsync("halda", Role.Engineer);
        for (var guess = 0; guess < 4; guess++)
            await TryAsync("halda", $"guess-number-{guess}");

        (await TryAsync("halda", RunningService.Password)).Status.ShouldBe(200);
        // What was wrong is forgotten with it.
        for (var guess = 0; guess < 4; guess++)
            (await TryAsync("halda", $"guess-number-{guess}")).Status.ShouldBe(401);
        (await TryAsync("halda", RunningService.Password)).Status.ShouldBe(200);
    }

    [Fact]
    public async Task Nothing_endless_is_hashed_or_kept()
    {
        (await TryAsync(new string('n', 100_000), "p")).Status.ShouldBe(401);
        (await TryAsync("ilka", new string('p', 100_000))).Status.ShouldBe(401);
    }

    [Fact]
    public async Task The_consoles_cookie_is_for_the_console_alone()
    {
        using var http = service.Service.Http();

        using var answer = await http.PostAsync(
            "api/sign-in/console",
            Json($$"""{"name":"ilka","password":"{{RunningService.Password}}"}"""),
            Ct
        );

        var cookie = answer
            .Headers.GetValues("Set-Cookie")
            .Single(c => c.StartsWith("nailcrow=", StringComparison.Ordinal))
            .ToLowerInvariant();
        cookie.ShouldContain("httponly");
        cookie.ShouldContain("samesite=strict");
    }

    [Fact]
    public async Task A_token_that_was_tampered_with_opens_nothing()
    {
        using var http = service.Service.Http();
        var token = await new NailcrowClient(service.Service.Http(), TimeProvider.System).SignInAsync("ilka", RunningService.Password, Ct);
        var changed = token.AccessToken[..^4] + (token.AccessToken.EndsWith("AAAA", StringComparison.Ordinal) ? "BBBB" : "AAAA");
        http.DefaultRequestHeaders.Add("Authorization", $"Bearer {changed}");

        (await http.GetAsync("api/me", Ct)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Every_answer_says_what_a_page_of_it_may_load()
    {
        using var http = service.Service.Http();

        var answer = await http.GetAsync("/health/live", Ct);

        answer.Headers.GetValues("Content-Security-Policy").Single().ShouldContain("default-src 'self'");
        answer.Headers.GetValues("X-Content-Type-Options").Single().ShouldBe("nosniff");
        answer.Headers.Contains("Server").ShouldBeFalse();
    }

    [Fact]
    public async Task The_security_log_tells_who_came_in_and_who_was_let_in()
    {
        await service.Service.LetInAsync("vessa", Role.Engineer);
        await TryAsync("vessa", "not-the-right-one");
        var admin = await service.AsAsync("admin");
        await admin.PutRolesAsync("vessa", [Role.Engineer, Role.Stores], Ct);

        var hers = (await admin.SecurityLogAsync("vessa", null, null, 10, Ct)).Lines;
        var roles = (await admin.SecurityLogAsync("admin", SecurityEvent.RolesChanged, null, 1, Ct)).Lines.ShouldHaveSingleItem();

        hers.Select(l => l.What).ShouldBe([SecurityEvent.SignInRefused, SecurityEvent.PasswordChanged, SecurityEvent.SignedIn]);
        hers.ShouldAllBe(l => l.Address == "127.0.0.1");
        (roles.About, roles.Detail).ShouldBe(("vessa", "engineer to engineer,stores"));
        (await admin.VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task Whoever_tries_doors_that_are_not_theirs_stands_in_the_log_once_and_not_a_thousand_times()
    {
        await service.Service.LetInAsync("curio", Role.Engineer);
        var curio = await service.Service.SignInAsync("curio");

        for (var i = 0; i < 20; i++)
            (await Should.ThrowAsync<ApiProblem>(() => curio.GivePasswordAsync("admin", null, Ct))).Status.ShouldBe(
                HttpStatusCode.Forbidden
            );

        var admin = await service.AsAsync("admin");
        var line = (await admin.SecurityLogAsync("curio", SecurityEvent.CallRefused, null, 100, Ct)).Lines.ShouldHaveSingleItem();
        line.Detail.ShouldBe("PUT /api/people/admin/password");
    }

    [Fact]
    public async Task Nothing_that_anybody_signs_in_with_is_in_the_log_or_the_files_in_clear()
    {
        await using var own = await RunningService.StartPeopledAsync(alone: true);
        var admin = await own.SignInAsync("admin");
        var key = (await admin.MakeKeyAsync("admin", new("night report", DateOnly.FromDateTime(DateTime.UtcNow), [Role.Admin]), Ct)).Secret;
        var letIn = await admin.AddPersonAsync(new("norra", "Norra", null, [Role.Engineer]), Ct);

        var lines = (await admin.SecurityLogAsync(null, null, null, 500, Ct)).Lines.Select(l => l.ToString());
        await own.StopAsync();
        SqliteConnection.ClearAllPools();

        string[] secrets = [RunningService.Password, key.Split('.')[^1], letIn.FirstPassword!];
        foreach (var text in lines.Append(own.Process.Said).Concat(RunningService.KeptIn(own.Folder).Select(Latin)))
        foreach (var secret in secrets)
            text.ShouldNotContain(secret);
        own.NotRestartedBecause = "it was stopped";
    }

    private static string Latin(string file) => Encoding.Latin1.GetString(File.ReadAllBytes(file));
}
