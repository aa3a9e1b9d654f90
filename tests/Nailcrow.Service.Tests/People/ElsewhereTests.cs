using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.RegularExpressions;
using Nailcrow.Client;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Provider;
using Nailcrow.Running;
using static Nailcrow.Service.Tests.People.FirmWithProvider;

namespace Nailcrow.Service.Tests.People;

/// <summary>Coming in by a firm's own provider of sign-ins: a real one, on loopback, with a browser's cookies and without a browser.</summary>
public sealed class ElsewhereTests(FirmWithProvider firm) : IClassFixture<FirmWithProvider>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Whoever_the_provider_lets_in_is_somebody_here_with_the_roles_it_says_each_time()
    {
        firm.Provider.Who = new("s-1", "Corrie@fenwright.example", "Corrie Vane", "corrie@fenwright.example", "tide-crew", "choir");
        using var first = await BrowserAsync();

        var corrie = await MeAsync(first);
        (corrie.Name, corrie.FullName, corrie.Mail, corrie.HasPassword).ShouldBe(
            ("corrie", "Corrie Vane", "corrie@fenwright.example", false)
        );
        corrie.Roles.ShouldBe([Role.Engineer]);
        corrie.Elsewhere.ShouldBe("Fenwright sign-in");

        firm.Provider.Who = firm.Provider.Who with { Groups = ["head-office", "tide-crew"], Name = "another-name-by-now" };
        using var second = await BrowserAsync();
        (await MeAsync(second)).Name.ShouldBe("corrie"); // whatever it is called there
        (await MeAsync(first)).Roles.ShouldBe([Role.Admin, Role.Engineer], ignoreOrder: true);
        var told = (await firm.LogAsync("corrie")).Select(line => (line.By, line.What, line.Detail)).ToList();
        told.ShouldContain((SignedBy, SecurityEvent.PersonAdded, "Corrie Vane; engineer"));
        told.ShouldContain(line => line.By == SignedBy && line.What == SecurityEvent.RolesChanged);
    }

    [Fact]
    public async Task A_name_that_is_somebodys_here_opens_nothing_until_they_have_said_that_it_is_them()
    {
        firm.Provider.Who = new("s-2", "ilka", "Somebody Else", null, "tide-crew");
        using (var stranger = firm.Browser())
            (await PageAsync(stranger)).ShouldBe(
                (403, "There is a 'ilka' here already. If that is you, sign in with your password, and join the two under your name.")
            );
        var ilka = await firm.Service.SignInAsync("ilka");

        (await ProblemAsync(ilka.JoinElsewhereAsync("not the password", Ct))).ShouldBe(
            (422, "The password you have now is another one; nothing was changed.")
        );
        var join = await ilka.JoinElsewhereAsync(RunningService.Password, Ct);
        using (var browser = firm.Browser())
        {
            // Whoever was sent that link by somebody else reads first whose it is, and nothing is joined by having looked.
            var asked = await browser.GetStringAsync(join.At, Ct);
            asked.ShouldContain("<strong>Somebody Else</strong> (ilka)");
            asked.ShouldContain("comes in here as <strong>ilka</strong> (ilka)");
            (await ilka.MeAsync(Ct)).Elsewhere.ShouldBeNull();
            (await SaidYesAsync(browser, asked)).RequestMessage!.RequestUri!.AbsolutePath.ShouldBe("/you");
        }
        using var again = await BrowserAsync();
        (await MeAsync(again)).Name.ShouldBe("ilka");
        (await firm.Service.SignInAsync("ilka")).ShouldNotBeNull(); // and the password as before

        // Another one of theirs there, and theirs for another one here, are both refused.
        firm.Provider.Who = new("s-2b", "ilka-too", "Ilka Again", null, "tide-crew");
        (await JoinedAsync("ilka")).ShouldStartWith("You come in by Fenwright sign-in as somebody else already");
        firm.Provider.Who = new("s-2", "ilka", "Ilka", null, "tide-crew");
        (await JoinedAsync("tamsel")).ShouldBe("Whoever is signed in there is ilka here. Sign out there, and in again as yourself.");

        await ilka.PartElsewhereAsync(RunningService.Password, Ct);
        (await again.GetAsync("api/me", Ct)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await ProblemAsync(ilka.PartElsewhereAsync(RunningService.Password, Ct))).Sentence.ShouldBe(
            "ilka comes in by no provider of sign-ins."
        );
    }

    [Fact]
    public async Task Whoever_may_not_come_in_is_told_why_and_stands_in_the_log()
    {
        firm.Provider.Who = new("s-3", "drift", "Drift Moor", null, "choir");
        using var browser = firm.Browser();
        (await PageAsync(browser)).Sentence.ShouldStartWith(
            "Fenwright sign-in lets you in, and names no group of yours that has a role here."
        );

        firm.Provider.Who = new("s-4", "no name at all", "Nobody", null, "tide-crew");
        (await PageAsync(browser)).Sentence.ShouldContain("is no name to sign in with");

        firm.Provider.Who = new("s-5", "gorse", "Gorse Hill", null, "tide-crew");
        using var gorse = await BrowserAsync();
        var admin = await firm.Service.SignInAsync("admin");
        await admin.DisablePersonAsync("gorse", "on leave", Ct);
        (await gorse.GetAsync("api/me", Ct)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await PageAsync(browser)).ShouldBe((403, "gorse may not come in here."));
        (await admin.SecurityLogAsync("(elsewhere) gorse", SecurityEvent.SignInRefused, null, 5, Ct)).Lines.ShouldHaveSingleItem();

        firm.Provider.Who = null;
        (await PageAsync(browser)).ShouldBe((403, "Fenwright sign-in did not let you in, or you said no there."));
    }

    [Fact]
    public async Task The_last_who_looks_after_people_stays_one_whatever_is_said_elsewhere()
    {
        firm.Provider.Who = new("s-6", "admin", "Admin", null, "tide-crew");
        await JoinedAsync("admin");
        foreach (var other in (await (await firm.Service.SignInAsync("admin")).PeopleAsync(Ct)).People)
            if (other.Name != "admin" && other.Roles.Contains(Role.Admin))
                await (await firm.Service.SignInAsync("admin")).PutRolesAsync(other.Name, [Role.Engineer], Ct);

        using var browser = await BrowserAsync();

        (await MeAsync(browser)).Roles.ShouldBe([Role.Admin, Role.Engineer], ignoreOrder: true);
        await (await firm.Service.SignInAsync("admin")).PartElsewhereAsync(RunningService.Password, Ct);
    }

    [Fact]
    public async Task A_second_factor_is_the_providers_to_ask_for()
    {
        firm.Provider.Who = new("s-7", "heddle", "Heddle", null, "store-room");

        using var browser = await BrowserAsync();

        (await MeAsync(browser)).MustSetUp.ShouldBeFalse();
        (await browser.GetAsync("api/tickets", Ct)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await browser.PostAsJsonAsync("api/me/second-factor/codes", new PasswordSaid(""), Ct)).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
    }

    [Fact]
    public async Task Groups_that_are_told_only_where_one_asks_about_the_token_count_as_well()
    {
        firm.Provider.Who = new("s-8", "kelp", "Kelp", null, "tide-crew");
        firm.Provider.TellsGroupsLater = true;
        try
        {
            using var browser = await BrowserAsync();
            (await MeAsync(browser)).Roles.ShouldBe([Role.Engineer]);
            (await MeAsync(await DeviceAsync())).Roles.ShouldBe([Role.Engineer]);
        }
        finally
        {
            firm.Provider.TellsGroupsLater = false;
        }
    }

    [Fact]
    public async Task A_password_that_somebody_is_given_beside_it_keeps_nobody_who_comes_in_by_it_from_anything()
    {
        firm.Provider.Who = new("s-12", "osier", "Osier", null, "tide-crew");
        using var browser = await BrowserAsync();

        var given = (await (await firm.Service.SignInAsync("admin")).GivePasswordAsync("osier", null, Ct)).FirstPassword.ShouldNotBeNull();

        using var again = await BrowserAsync(); // the one before is over with it
        ((await MeAsync(again)).MustChange, (await again.GetAsync("api/tickets", Ct)).StatusCode).ShouldBe((false, HttpStatusCode.OK));
        var own = new NailcrowClient(firm.Service.Http(), TimeProvider.System);
        own.UseToken((await own.SignInAsync("osier", given, Ct)).AccessToken);
        (await own.MeAsync(Ct)).MustChange.ShouldBeTrue();
    }

    [Fact]
    public async Task A_provider_that_is_silent_for_a_moment_does_not_end_the_wait_of_whoever_has_no_browser()
    {
        await using var provider = await RunningProvider.StartAsync();
        await using var service = await RunningService.StartPeopledAsync(further: provider.Settings);
        await provider.KnowsAsync(service.Address);
        var anonymous = new NailcrowClient(service.Http(), TimeProvider.System);
        var asked = await anonymous.AskDeviceAsync(Ct);

        provider.IsSilent = true;
        (await anonymous.ShowDeviceAsync(asked.Handle, Ct)).ShouldBe((null, TimeSpan.FromSeconds(10))); // more seldom than before
        provider.IsSilent = false;

        (await anonymous.ShowDeviceAsync(asked.Handle, Ct)).ShouldBe((null, TimeSpan.FromSeconds(5)));
    }

    [Fact]
    public async Task Without_a_browser_one_waits_until_somebody_has_typed_the_code_elsewhere()
    {
        firm.Provider.Who = new("s-9", "lathe", "Lathe", null, "tide-crew");
        var anonymous = new NailcrowClient(firm.Service.Http(), TimeProvider.System);
        var asked = await anonymous.AskDeviceAsync(Ct);

        (asked.AgainAfterSeconds, asked.Code.Length > 4, asked.LastsSeconds > 60).ShouldBe((5, true, true));
        (await anonymous.ShowDeviceAsync(asked.Handle, Ct)).ShouldBe((null, TimeSpan.FromSeconds(5)));
        using (var telephone = firm.Browser())
            (await telephone.GetAsync(asked.AtWithCode, Ct)).RequestMessage!.RequestUri!.AbsolutePath.ShouldBe("/");
        var (token, _) = await anonymous.ShowDeviceAsync(asked.Handle, Ct);
        anonymous.UseToken(token.ShouldNotBeNull().AccessToken);
        (await anonymous.MeAsync(Ct)).Name.ShouldBe("lathe");

        (await ProblemAsync(anonymous.ShowDeviceAsync(asked.Handle, Ct))).ShouldBe(
            (401, "That sign-in was begun too long ago, or used; begin it anew.")
        );
        (await ProblemAsync(anonymous.ShowDeviceAsync("nonsense", Ct))).ShouldBe(
            (401, "That sign-in was not begun here, or too long ago; begin it anew.")
        );
    }

    [Fact]
    public async Task Who_says_no_on_the_other_device_is_not_in()
    {
        firm.Provider.Who = null;
        var anonymous = new NailcrowClient(firm.Service.Http(), TimeProvider.System);
        var asked = await anonymous.AskDeviceAsync(Ct);
        using (var telephone = firm.Browser())
            await telephone.GetAsync(asked.AtWithCode, Ct);

        (await ProblemAsync(anonymous.ShowDeviceAsync(asked.Handle, Ct))).ShouldBe(
            (401, "Fenwright sign-in did not let you in, or you said no there.")
        );
    }

    [Fact]
    public async Task What_comes_back_in_another_browser_or_made_up_opens_nothing()
    {
        firm.Provider.Who = new("s-10", "merle", "Merle", null, "tide-crew");
        using var here = firm.Browser(follows: false);
        var there = (await here.GetAsync("api/sign-in/elsewhere", Ct)).Headers.Location;
        there!.Query.ShouldContain("code_challenge_method=S256"); // RFC 7636
        var back = (await here.GetAsync(there, Ct)).Headers.Location;

        using var other = firm.Browser(follows: false);
        (await PageAsync(other, back!.ToString())).Sentence.ShouldStartWith(
            "The sign-in by way of Fenwright sign-in did not come to its end"
        );
        (await PageAsync(other, "api/sign-in/elsewhere/back?code=made-up&state=made-up")).Status.ShouldBe(403);
        (await other.GetAsync("api/me", Ct)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (
            await other.PostAsync("api/sign-in/elsewhere/joined", new FormUrlEncodedContent([new("joining", "made-up")]), Ct)
        ).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await PageAsync(other, "api/sign-in/elsewhere?joins=made-up")).Sentence.ShouldStartWith(
            "That was asked for more than five minutes ago"
        );
    }

    [Theory]
    [InlineData("/tickets/7", "/tickets/7")]
    [InlineData("//elsewhere.example/", "/")]
    [InlineData("/\\elsewhere.example/", "/")]
    [InlineData("https://elsewhere.example/", "/")]
    [InlineData("/\t/elsewhere.example/", "/")]
    [InlineData("/\r\n/elsewhere.example/", "/")]
    [InlineData("/t\u00e9", "/")]
    public async Task One_ends_on_the_page_one_was_on_and_never_on_another_sites(string to, string ends)
    {
        firm.Provider.Who = new("s-11", "norrie", "Norrie", null, "tide-crew");
        using var browser = firm.Browser();

        var page = await browser.GetAsync($"api/sign-in/elsewhere?to={Uri.EscapeDataString(to)}", Ct);

        page.RequestMessage!.RequestUri.ShouldBe(new Uri(firm.Service.Address, ends));
    }

    private const string SignedBy = "elsewhere";

    private async Task<HttpClient> BrowserAsync()
    {
        var browser = firm.Browser();
        var page = await browser.GetAsync("api/sign-in/elsewhere", Ct);
        page.RequestMessage!.RequestUri!.AbsolutePath.ShouldBe("/", await page.Content.ReadAsStringAsync(Ct));
        return browser;
    }

    private async Task<NailcrowClient> DeviceAsync()
    {
        var client = new NailcrowClient(firm.Service.Http(), TimeProvider.System);
        var asked = await client.AskDeviceAsync(Ct);
        using (var telephone = firm.Browser())
            await telephone.GetAsync(asked.AtWithCode, Ct);
        client.UseToken((await client.ShowDeviceAsync(asked.Handle, Ct)).Token.ShouldNotBeNull().AccessToken);
        return client;
    }

    /// <returns>What the page says to whoever joins, or where it leads.</returns>
    private async Task<string> JoinedAsync(string name)
    {
        var join = await (await firm.Service.SignInAsync(name)).JoinElsewhereAsync(RunningService.Password, Ct);
        using var browser = firm.Browser();
        return Sentence(await (await SaidYesAsync(browser, await browser.GetStringAsync(join.At, Ct))).Content.ReadAsStringAsync(Ct));
    }

    private static Task<HttpResponseMessage> SaidYesAsync(HttpClient browser, string page) =>
        browser.PostAsync(
            "api/sign-in/elsewhere/joined",
            new FormUrlEncodedContent([new("joining", Regex.Match(page, "name=\"joining\" value=\"([^\"]+)\"").Groups[1].Value)]),
            Ct
        );

    private static async Task<PersonView> MeAsync(HttpClient browser) =>
        await browser.GetFromJsonAsync("api/me", ContractJson.Default.PersonView, Ct) ?? throw new JsonException("It says nothing.");

    private static Task<PersonView> MeAsync(NailcrowClient client) => client.MeAsync(Ct);
}
