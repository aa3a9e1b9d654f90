using System.Net;
using System.Text;
using Nailcrow.Client;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests;

public sealed class PeopleTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static StringContent Json(string text) => new(text, Encoding.UTF8, "application/json");

    [Fact]
    public async Task Somebody_let_in_may_do_what_their_roles_say_from_the_next_minute_on()
    {
        await (await service.AsAsync("admin")).AddPersonAsync(
            new PersonAsk("norra", "Norra Selmark", RunningService.Password, [Role.Stores, Role.Lead]),
            Ct
        );

        var me = await (await service.AsAsync("norra")).MeAsync(Ct);

        (me.Name, me.FullName).ShouldBe(("norra", "Norra Selmark"));
        me.Roles.ShouldBe([Role.Stores, Role.Lead]);
    }

    [Theory]
    [InlineData("ilka", "a-long-enough-one", Role.Engineer, "Username 'ilka' is already taken.")]
    [InlineData("venn", "short", Role.Engineer, "Passwords must be at least 10 characters.")]
    [InlineData("venn", "a-long-enough-one", null, "A person has at least one role; accepted: engineer, dispatcher, stores, lead, admin.")]
    public async Task A_person_who_cannot_be_let_in_is_refused_with_the_reason(string name, string password, Role? role, string reason)
    {
        var admin = await service.AsAsync("admin");

        var no = await Should.ThrowAsync<ApiProblem>(() =>
            admin.AddPersonAsync(new PersonAsk(name, name, password, role is { } r ? [r] : []), Ct)
        );

        ((int)no.Status, no.Message).ShouldBe((422, reason));
    }

    [Fact]
    public async Task Only_an_admin_lets_people_in() =>
        (
            await Should.ThrowAsync<ApiProblem>(async () =>
                await (await service.AsAsync("lioth")).AddPersonAsync(new PersonAsk("x", "x", RunningService.Password, [Role.Admin]), Ct)
            )
        ).Status.ShouldBe(HttpStatusCode.Forbidden);

    [Fact]
    public async Task Guessing_passwords_ends_after_ten_even_with_the_right_one()
    {
        await (await service.AsAsync("admin")).AddPersonAsync(
            new PersonAsk("halda", "Halda Venn", RunningService.Password, [Role.Engineer]),
            Ct
        );
        var stranger = new NailcrowClient(service.Service.Http(), TimeProvider.System);
        for (var guess = 0; guess < 10; guess++)
            await Should.ThrowAsync<ApiProblem>(() => stranger.SignInAsync("halda", $"guess-number-{guess}", Ct));

        var no = await Should.ThrowAsync<ApiProblem>(() => stranger.SignInAsync("halda", RunningService.Password, Ct));

        (no.Status, no.Message).ShouldBe((HttpStatusCode.Unauthorized, "Too many wrong passwords; try again in five minutes."));
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
}
