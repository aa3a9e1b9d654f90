using Microsoft.Playwright;
using Nailcrow.Client;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;

namespace Nailcrow.Console.Tests;

/// <summary>Who may come in, where they are in, and what becomes of what they were at.</summary>
[Collection(OneBrowser.Name)]
public sealed class PeoplePageTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Theory, InlineData(false), InlineData(true)]
    public async Task Somebody_is_let_in_and_chooses_a_password_of_their_own_before_they_see_anything(bool phone)
    {
        var name = phone ? "norra" : "halvard";
        var admin = await use.PageAsync("admin", phone);
        await admin.GetByRole(AriaRole.Link, new() { Name = phone ? "You" : "admin", Exact = true }).ClickAsync();
        await admin.GetByRole(AriaRole.Link, new() { Name = "Everybody who may come in" }).ClickAsync();
        var form = admin.GetByRole(AriaRole.Form, new() { Name = "Let somebody in" });
        await form.GetByLabel("Full name").FillAsync("Somebody New");
        await form.GetByLabel("Name to sign in with").FillAsync("nai1crow");
        await form.GetByRole(AriaRole.Button, new() { Name = "Let them in" }).ClickAsync();
        await form.GetByText("'nai1crow' could be taken for the service itself ('nailcrow'); choose another name.").WaitForAsync();
        await form.GetByLabel("Name to sign in with").FillAsync(name);
        await form.GetByRole(AriaRole.Button, new() { Name = "Let them in" }).ClickAsync();
        var first = await form.GetByRole(AriaRole.Status).Locator(".mono").InnerTextAsync();

        var page = await use.PageAsync(null, phone);
        await SignInAsync(page, name, first);
        await page.GetByRole(AriaRole.Heading, new() { Name = "Choose a password of your own" }).WaitForAsync();
        await page.GetByLabel("The password you were given").FillAsync(first);
        await page.GetByLabel("The next one", new() { Exact = true }).FillAsync("qwerty123456");
        await page.GetByLabel("The next one again").FillAsync("qwerty12345");
        await page.GetByText("This is another one.").WaitForAsync();
        await page.GetByLabel("The next one again").FillAsync("qwerty123456");
        await page.GetByRole(AriaRole.Button, new() { Name = "Change it" }).ClickAsync();
        await page.GetByText("That password is among those that are tried first; choose one that nobody else would.").WaitForAsync();
        await page.GetByLabel("The next one", new() { Exact = true }).FillAsync(RunningService.Password);
        await page.GetByLabel("The next one again").FillAsync(RunningService.Password);
        await page.GetByRole(AriaRole.Button, new() { Name = "Change it" }).ClickAsync();

        await page.GetByRole(AriaRole.Heading, new() { Name = "My day" }).WaitForAsync();
    }

    [Theory, InlineData(false), InlineData(true)]
    public async Task Who_is_shut_out_in_the_middle_of_a_run_is_out_and_whoever_goes_on_has_what_was_typed(bool phone)
    {
        var name = phone ? "wynn" : "orla";
        await use.Service.LetInAsync(name, Role.Engineer);
        var ticket = await use.TypedTicketAsync("serial-out");
        await (await use.AsAsync("dorrik")).WriteAsync(ticket, new HandedOver("ilka", name), Ct);
        var page = await use.PageAsync(name, phone);
        await page.GotoAsync($"/tickets/{ticket}/run");
        await page.GetByLabel("Scan, or type the serial").FillAsync("CDR12T00");

        await (await use.AsAsync("admin")).DisablePersonAsync(name, "The phone was lost and found", Ct);

        // By the stream that ends: nobody has pressed anything. That it does within five seconds is for StayingInTests; a browser on a
        // loaded machine takes its time to notice.
        await page.GetByRole(AriaRole.Dialog, new() { Name = "Sign in again" }).WaitForAsync();
        await SignInAsync(page, name, RunningService.Password);
        await page.GetByText("Name and password do not go together.").WaitForAsync();
        (await (await use.AsAsync("dorrik")).HandOverAllAsync(name, "ilka", "Go on where it stands.", Ct)).Tickets.ShouldBe([ticket]);
        await SignInAsync(page, "ilka", RunningService.Password);
        await page.GetByText($"{name} was in the middle of this page. What was typed and not sent is still here.").WaitForAsync();
        await page.GetByRole(AriaRole.Button, new() { Name = "Go on with it" }).ClickAsync();

        await page.GetByText("◆ live").WaitForAsync();
        page.Url.ShouldEndWith($"/tickets/{ticket}/run");
        await Assertions.Expect(page.GetByLabel("Scan, or type the serial")).ToHaveValueAsync("CDR12T00");
    }

    [Fact]
    public async Task One_sees_where_one_is_signed_in_and_ends_it_there()
    {
        await use.Service.LetInAsync("perrin", Role.Engineer);
        var there = await use.Service.SignInAsync("perrin");
        var page = await use.PageAsync("perrin");
        await page.GotoAsync("/you");
        var signedIn = page.GetByRole(AriaRole.Region, new() { Name = "Signed in" });
        await signedIn.GetByText("a browser on Linux").WaitForAsync();

        while (await signedIn.GetByRole(AriaRole.Button, new() { Name = "Sign out there" }).CountAsync() is > 0 and var left)
        {
            await signedIn.GetByRole(AriaRole.Button, new() { Name = "Sign out there" }).First.ClickAsync();
            await signedIn
                .GetByRole(AriaRole.Button, new() { Name = "Sign out there" })
                .Nth(left - 1)
                .WaitForAsync(new() { State = WaitForSelectorState.Detached });
        }

        (await Should.ThrowAsync<ApiProblem>(() => there.MeAsync(Ct))).Status.ShouldBe(System.Net.HttpStatusCode.Unauthorized);
        (await signedIn.GetByText("· this one").CountAsync()).ShouldBe(1);
    }

    [Fact]
    public async Task A_key_is_shown_once_and_ended_by_a_press()
    {
        await use.Service.LetInAsync("runa", Role.Engineer, Role.Stores);
        var page = await use.PageAsync("runa");
        await page.GotoAsync("/you");
        var form = page.GetByRole(AriaRole.Form, new() { Name = "A key for a script" });
        await form.GetByLabel("What it is for").FillAsync("night report");
        await form.GetByLabel("stores").UncheckAsync();
        await form.GetByRole(AriaRole.Button, new() { Name = "Make it" }).ClickAsync();
        var secret = await form.GetByRole(AriaRole.Status).Locator(".mono").InnerTextAsync();
        var script = new NailcrowClient(use.Service.Http(), TimeProvider.System);
        script.UseToken(secret);
        (await script.MeAsync(Ct)).Roles.ShouldBe([Role.Engineer]);

        await page.ReloadAsync();
        await page.GetByText("night report: reads only as engineer, until ").WaitForAsync();
        (await page.GetByText(secret).CountAsync()).ShouldBe(0);
        await page.GetByRole(AriaRole.Button, new() { Name = "End this key" }).ClickAsync();
        await page.GetByRole(AriaRole.Button, new() { Name = "End this key" })
            .WaitForAsync(new() { State = WaitForSelectorState.Detached });

        (await Should.ThrowAsync<ApiProblem>(() => script.MeAsync(Ct))).Status.ShouldBe(System.Net.HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Who_leaves_hands_over_first()
    {
        await use.Service.LetInAsync("tove", Role.Engineer);
        await use.Service.LetInAsync("mareth", Role.Admin, Role.Dispatcher);
        var ticket = await use.TypedTicketAsync();
        await (await use.AsAsync("dorrik")).WriteAsync(ticket, new EngineerAssigned("tove"), Ct);
        var page = await use.PageAsync("mareth");
        await page.GotoAsync("/people");
        await page.GetByRole(AriaRole.Link, new() { Name = "tove", Exact = true }).ClickAsync();
        var outside = page.GetByRole(AriaRole.Region, new() { Name = "Out" });
        await outside.GetByRole(AriaRole.Link, new() { Name = $"T-{ticket}" }).WaitForAsync();
        await outside.GetByLabel("Why").FillAsync("To sea");
        (await outside.GetByRole(AriaRole.Button, new() { Name = "They leave the firm" }).IsDisabledAsync()).ShouldBeTrue();

        await outside.GetByLabel("Who has them from now on").SelectOptionAsync("tamsel");
        await outside.GetByRole(AriaRole.Button, new() { Name = "Hand all tickets over" }).ClickAsync();
        await outside
            .GetByRole(AriaRole.Link, new() { Name = $"T-{ticket}" })
            .WaitForAsync(new() { State = WaitForSelectorState.Detached });
        await outside.GetByRole(AriaRole.Button, new() { Name = "They leave the firm" }).ClickAsync();
        await page.GetByText("✕ May not come in since").WaitForAsync();

        (await (await use.AsAsync("tamsel")).TicketAsync(ticket, Ct)).Engineer.ShouldBe("tamsel");
        await page.GotoAsync("/people/security?what=person-left");
        await page.GetByText("To sea").WaitForAsync();
    }

    [Fact]
    public async Task Who_does_not_look_after_people_sees_who_there_is_and_no_more()
    {
        var page = await use.PageAsync("ilka");
        await page.GotoAsync("/people");

        await page.GetByText("To look after people takes another role than yours: admin.").WaitForAsync();

        (await page.GetByRole(AriaRole.Link, new() { Name = "lioth", Exact = true }).CountAsync()).ShouldBe(0);
        (await page.GetByRole(AriaRole.Form).CountAsync()).ShouldBe(0);
    }

    [Fact]
    public async Task A_dispatcher_hands_over_what_waits_for_somebody_who_is_out_from_the_desk()
    {
        await use.Service.LetInAsync("gerda", Role.Engineer);
        var ticket = await use.TypedTicketAsync();
        await (await use.AsAsync("dorrik")).WriteAsync(ticket, new EngineerAssigned("gerda"), Ct);
        await (await use.AsAsync("admin")).DisablePersonAsync("gerda", "Lost the phone", Ct);
        var page = await use.PageAsync("dorrik");
        await page.GotoAsync("/desk");

        await page.GetByText("gerda may not come in any more and still leads 1").WaitForAsync();
        await page.Locator("p", new() { HasText = "gerda may not come in" })
            .GetByRole(AriaRole.Link, new() { Name = "hand them over" })
            .ClickAsync();
        await page.GetByRole(AriaRole.Heading, new() { Name = "gerda" }).WaitForAsync();
        await page.GetByLabel("Who has them from now on").SelectOptionAsync("ilka");
        (await page.GetByRole(AriaRole.Button, new() { Name = "They may come in again" }).CountAsync()).ShouldBe(0); // another role says that
        await page.GetByRole(AriaRole.Button, new() { Name = "Hand all tickets over" }).ClickAsync();

        await page.GetByRole(AriaRole.Link, new() { Name = $"T-{ticket}" }).WaitForAsync(new() { State = WaitForSelectorState.Detached });
        (await (await use.AsAsync("ilka")).TicketAsync(ticket, Ct)).Engineer.ShouldBe("ilka");
    }

    private static async Task SignInAsync(IPage page, string name, string password)
    {
        await page.GetByLabel("Name", new() { Exact = true }).FillAsync(name);
        await page.GetByLabel("Password", new() { Exact = true }).FillAsync(password);
        await page.GetByRole(AriaRole.Button, new() { Name = "Sign in", Exact = true }).ClickAsync();
    }
}
