using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Nailcrow.Client;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.People;

/// <summary>What somebody shows beside a password: asked for, good once, taken away, and never to be had from what is kept.</summary>
public sealed class SecondFactorTests(SecondFactorTests.Firm firm) : IClassFixture<SecondFactorTests.Firm>
{
    private const string NotTogether = "Name and password do not go together.";
    private const string Wanted = "Type the six digits that your device shows now, or a recovery code.";
    private const string AnotherOne =
        "That code is another one, or was used before. Type the one that your device shows now, or a recovery code.";

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Once_a_device_has_shown_its_first_code_one_is_asked_for_and_each_opens_once()
    {
        var (orrin, device, _) = await SetUpAsync("orrin", Role.Engineer);

        (await orrin.SecondFactorAsync(Ct)).CodesSince.ShouldNotBeNull();
        (await RefusedAsync("orrin", null)).ShouldBe((401, ProblemTypes.SecondFactor, Wanted));
        (await RefusedAsync("orrin", "000000")).ShouldBe((401, ProblemTypes.SecondFactor, AnotherOne));
        var code = device.Shows(await firm.PassesAsync(30));
        (await RefusedAsync("orrin", code, "not the password")).ShouldBe((401, null, NotTogether));
        (await InAsync("orrin", code)).ShouldBe("orrin");
        (await RefusedAsync("orrin", code)).ShouldBe((401, ProblemTypes.SecondFactor, AnotherOne));
        (await InAsync("orrin", device.Shows(await firm.PassesAsync(30)))).ShouldBe("orrin");
    }

    [Fact]
    public async Task Ten_who_show_the_same_code_at_once_are_one_who_comes_in()
    {
        var (_, device, _) = await SetUpAsync("pell", Role.Engineer);
        var code = device.Shows(await firm.PassesAsync(30));

        var ends = await Task.WhenAll(Enumerable.Range(0, 10).Select(_ => StatusAsync("pell", code)));

        ends.Count(status => status == 200).ShouldBe(1);
    }

    [Fact]
    public async Task A_key_counts_only_once_a_code_of_it_came_back_and_takes_the_password_once_more()
    {
        await firm.Service.LetInAsync("quill", Role.Engineer);
        var quill = await firm.Service.SignInAsync("quill");

        (await ProblemAsync(quill.OfferCodesAsync("not the password", Ct))).ShouldBe(
            (422, "The password you have now is another one; nothing was changed.")
        );
        var offered = await quill.OfferCodesAsync(RunningService.Password, Ct);
        (await ProblemAsync(quill.TakeCodesAsync("000000", Ct))).Status.ShouldBe(422);
        (await firm.Service.SignInAsync("quill")).ShouldNotBeNull(); // nothing is asked for yet
        var late = new CodeDevice(offered.Key).Shows(await firm.PassesAsync(16 * 60));
        (await ProblemAsync(quill.TakeCodesAsync(late, Ct))).Sentence.ShouldContain("a key that was shown more than 15 minutes ago");
        offered.KeyUri.ShouldStartWith($"otpauth://totp/Nailcrow:quill?secret={offered.Key}");
        offered.Picture.ShouldAllBe(row => row.Length == offered.Picture.Count && row.All(c => c == '0' || c == '1'));
    }

    [Fact]
    public async Task A_code_on_paper_is_good_once_and_others_make_it_good_for_nothing()
    {
        var (rune, device, codes) = await SetUpAsync("rune", Role.Engineer);
        codes.Count.ShouldBe(10);

        (await InAsync("rune", codes[3].ToUpperInvariant().Replace('-', ' '))).ShouldBe("rune");
        (await RefusedAsync("rune", codes[3])).Sentence.ShouldBe(AnotherOne);
        (await rune.SecondFactorAsync(Ct)).RecoveryCodes.ShouldBe(9);
        var others = await rune.MakeRecoveryCodesAsync(RunningService.Password, Ct);
        (await RefusedAsync("rune", codes[4])).Sentence.ShouldBe(AnotherOne);
        (await InAsync("rune", others.RecoveryCodes.ShouldNotBeNull()[0])).ShouldBe("rune");

        await rune.EndCodesAsync(RunningService.Password, Ct);
        (await firm.Service.SignInAsync("rune")).ShouldNotBeNull(); // the password alone, since there is nothing beside it
        (await ProblemAsync(rune.MakeRecoveryCodesAsync(RunningService.Password, Ct))).Status.ShouldBe(409);
        device.ShouldNotBeNull();
    }

    [Fact]
    public async Task Whose_role_takes_one_does_nothing_before_there_is_one_and_everything_after()
    {
        await firm.Service.LetInAsync("teal", Role.Stores);
        var teal = await firm.Service.SignInAsync("teal");

        (await teal.MeAsync(Ct)).MustSetUp.ShouldBeTrue();
        (await ProblemAsync(teal.TicketsAsync(new(), Ct))).ShouldBe(
            (
                403,
                "Your roles take a second factor, and you have none yet: set one up first, on the console's page, or with "
                    + "'nailcrow second-factor codes' (POST /api/me/second-factor/codes)."
            )
        );
        (
            await ProblemAsync(teal.MakeKeyAsync("teal", new("night", DateOnly.FromDateTime(DateTime.UtcNow), [Role.Stores]), Ct))
        ).Status.ShouldBe(403);
        await SetUpAsync(teal);
        (await teal.MeAsync(Ct)).MustSetUp.ShouldBeFalse();
        (await teal.TicketsAsync(new(), Ct)).Tickets.ShouldNotBeNull();

        await teal.EndCodesAsync(RunningService.Password, Ct);
        (await ProblemAsync(teal.TicketsAsync(new(), Ct))).Status.ShouldBe(403);
    }

    [Fact]
    public async Task Who_has_lost_theirs_is_let_in_by_an_administrator_and_by_nobody_else()
    {
        var (wick, _, _) = await SetUpAsync("wick", Role.Engineer);
        var (admin, ilka) = (await firm.Service.SignInAsync("admin"), await firm.Service.SignInAsync("ilka"));
        (await admin.PeopleAsync(Ct)).People.Single(p => p.Name == "wick").HasSecondFactor.ShouldBe(true);
        (await ilka.PeopleAsync(Ct)).People.Single(p => p.Name == "wick").HasSecondFactor.ShouldBeNull();

        (await ProblemAsync(ilka.TakeAwaySecondFactorAsync("wick", Ct))).Status.ShouldBe(403);
        await admin.TakeAwaySecondFactorAsync("wick", Ct);

        (await ProblemAsync(wick.MeAsync(Ct))).Status.ShouldBe(401);
        (await firm.Service.SignInAsync("wick")).ShouldNotBeNull();
        (await ProblemAsync(admin.TakeAwaySecondFactorAsync("wick", Ct))).ShouldBe((409, "wick has no second factor."));
        (await ProblemAsync(admin.TakeAwaySecondFactorAsync("nobody-here", Ct))).Status.ShouldBe(404);
        (await ProblemAsync(admin.TakeAwaySecondFactorAsync("admin", Ct))).Sentence.ShouldStartWith("Your own is ended with your password");
        (await admin.SecurityLogAsync(null, SecurityEvent.SecondFactorTakenAway, null, 10, Ct))
            .Lines.Select(l => (l.By, l.About))
            .ShouldBe([("admin", "wick")]);
    }

    [Fact]
    public async Task Who_has_the_password_guesses_no_code()
    {
        var (_, device, _) = await SetUpAsync("yarrow", Role.Engineer);
        for (var tries = 0; tries < 5; tries++)
            (await RefusedAsync("yarrow", $"00000{tries}")).Sentence.ShouldBe(AnotherOne);

        (await RefusedAsync("yarrow", "000009")).Status.ShouldBe(429);

        var now = await firm.PassesAsync(60);
        (await InAsync("yarrow", device.Shows(now))).ShouldBe("yarrow");
        var log = await (await firm.Service.SignInAsync("admin")).SecurityLogAsync("yarrow", null, null, 50, Ct);
        log.Lines.ShouldContain(l => l.Detail == "the password was right, the second factor was not");
        log.Lines.ShouldContain(l => l.What == SecurityEvent.SecondFactorSetUp && l.Detail == "one-time codes");
    }

    [Fact]
    public async Task Not_to_show_one_costs_no_try()
    {
        var (_, device, _) = await SetUpAsync("zinnia", Role.Engineer);
        for (var tries = 0; tries < 12; tries++)
            (await RefusedAsync("zinnia", null)).Sentence.ShouldBe(Wanted);

        (await InAsync("zinnia", device.Shows(await firm.PassesAsync(30)))).ShouldBe("zinnia");
    }

    [Fact]
    public async Task What_is_kept_opens_nothing_for_whoever_reads_it()
    {
        await firm.Service.LetInAsync("umber", Role.Engineer);
        var umber = await firm.Service.SignInAsync("umber");
        var offered = await umber.OfferCodesAsync(RunningService.Password, Ct);
        var set = await umber.TakeCodesAsync(new CodeDevice(offered.Key).Shows(await firm.PassesAsync(0)), Ct);

        string[] secrets =
        [
            offered.Key,
            .. set.RecoveryCodes.ShouldNotBeNull(),
            .. set.RecoveryCodes.Select(c => c.Replace("-", "", StringComparison.Ordinal)),
        ];
        foreach (
            var file in RunningService
                .KeptIn(firm.Service.Folder)
                .Where(f => Path.GetFileName(f).StartsWith("nailcrow", StringComparison.Ordinal))
        )
        {
            var kept = Encoding.Latin1.GetString(await File.ReadAllBytesAsync(file, Ct));
            secrets.ShouldAllBe(secret => !kept.Contains(secret, StringComparison.OrdinalIgnoreCase), Path.GetFileName(file));
        }
    }

    [Fact]
    public async Task A_passkey_that_nobody_asked_for_opens_nothing_and_is_answered_with_a_sentence()
    {
        using var http = firm.Service.Http();
        var asked = await (await http.PostAsync("api/sign-in/passkey", null, Ct)).Content.ReadFromJsonAsync<JsonElement>(Ct);
        asked.GetProperty("options").GetProperty("userVerification").GetString().ShouldBe("required");
        var state = asked.GetProperty("state").GetString();
        object[] shown =
        [
            new { state, credential = new { } },
            new { state, credential = "x" },
            new
            {
                state = "made up",
                credential = new
                {
                    id = "AA",
                    rawId = "AA",
                    type = "public-key",
                    response = new { },
                },
            },
            new
            {
                state,
                credential = new
                {
                    id = "AA",
                    rawId = "AA",
                    type = "public-key",
                    clientExtensionResults = new { },
                    response = new
                    {
                        clientDataJSON = "e30",
                        authenticatorData = "AA",
                        signature = "AA",
                        userHandle = "AA",
                    },
                },
            },
        ];
        foreach (var one in shown)
        {
            var answer = await http.PostAsJsonAsync("api/sign-in/passkey/console", one, Ct);
            answer.StatusCode.ShouldBe(HttpStatusCode.Unauthorized, JsonSerializer.Serialize(one));
            (await answer.Content.ReadFromJsonAsync<JsonElement>(Ct))
                .GetProperty("detail")
                .GetString()
                .ShouldBe("That passkey opens nothing here, or was asked for more than five minutes ago.");
        }
    }

    private async Task<(NailcrowClient Client, CodeDevice Device, IReadOnlyList<string> Recovery)> SetUpAsync(string name, Role role)
    {
        await firm.Service.LetInAsync(name, role);
        var client = await firm.Service.SignInAsync(name);
        var (device, recovery) = await SetUpAsync(client);
        return (client, device, recovery);
    }

    private async Task<(CodeDevice Device, IReadOnlyList<string> Recovery)> SetUpAsync(NailcrowClient client)
    {
        var device = new CodeDevice((await client.OfferCodesAsync(RunningService.Password, Ct)).Key);
        var set = await client.TakeCodesAsync(device.Shows(await firm.PassesAsync(0)), Ct);
        return (device, set.RecoveryCodes.ShouldNotBeNull());
    }

    private async Task<string> InAsync(string name, string code)
    {
        var client = new NailcrowClient(firm.Service.Http(), TimeProvider.System);
        client.UseToken((await client.SignInAsync(name, RunningService.Password, Ct, code)).AccessToken);
        return (await client.MeAsync(Ct)).Name;
    }

    private async Task<int> StatusAsync(string name, string code)
    {
        using var http = firm.Service.Http();
        return (int)
            (
                await http.PostAsJsonAsync(
                    "api/sign-in",
                    new
                    {
                        name,
                        password = RunningService.Password,
                        code,
                    },
                    Ct
                )
            ).StatusCode;
    }

    private async Task<(int Status, string? Type, string Sentence)> RefusedAsync(
        string name,
        string? code,
        string password = RunningService.Password
    )
    {
        var client = new NailcrowClient(firm.Service.Http(), TimeProvider.System);
        var no = await Should.ThrowAsync<ApiProblem>(() => client.SignInAsync(name, password, Ct, code));
        return ((int)no.Status, no.Type is ProblemTypes.SecondFactor ? no.Type : null, no.Message);
    }

    private static async Task<(int Status, string Sentence)> ProblemAsync(Task call)
    {
        var no = await Should.ThrowAsync<ApiProblem>(() => call);
        return ((int)no.Status, no.Message);
    }

    /// <summary>A service with a clock of its own, where stores takes a second factor.</summary>
    public sealed class Firm : IAsyncLifetime
    {
        private RunningService? _service;

        public RunningService Service => _service ?? throw new InvalidOperationException("Not started yet.");

        public async ValueTask InitializeAsync() =>
            _service = await RunningService.StartPeopledAsync(givenTime: true, further: ["--Nailcrow:SecondFactor:0", "stores"]);

        /// <summary>What time it is there so many seconds on.</summary>
        public Task<DateTimeOffset> PassesAsync(int seconds) => Service.PassesAsync(TimeSpan.FromSeconds(seconds));

        public ValueTask DisposeAsync() => Service.DisposeAsync();
    }
}
