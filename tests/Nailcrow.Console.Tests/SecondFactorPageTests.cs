using Microsoft.Playwright;
using Nailcrow.Core.People;
using Nailcrow.Running;

namespace Nailcrow.Console.Tests;

/// <summary>A second factor is set up and shown in the browser: by codes, and by a passkey that the browser itself keeps.</summary>
[Collection(OneBrowser.Name)]
public sealed class SecondFactorPageTests(ConsoleInUse use)
{
    [Theory, InlineData(false), InlineData(true)]
    public async Task One_time_codes_are_set_up_from_the_picture_and_asked_for_from_then_on(bool phone)
    {
        var name = phone ? "marrow" : "nettle";
        await use.Service.LetInAsync(name, Role.Engineer);
        var page = await use.PageAsync(name, phone);
        await page.GotoAsync("/you");
        var own = page.GetByRole(AriaRole.Region, new() { Name = "Second factor" });
        await own.GetByText("Nothing yet. Whoever learns your password is in.").WaitForAsync();
        await own.GetByText("Set up one-time codes").First.ClickAsync();
        var ask = own.GetByRole(AriaRole.Form, new() { Name = "Set up one-time codes" });
        await ask.GetByLabel("Your password, once more").FillAsync("not the password");
        await page.Keyboard.PressAsync("Enter");
        await ask.GetByText("The password you have now is another one; nothing was changed.").WaitForAsync();
        await ask.GetByLabel("Your password, once more").FillAsync(RunningService.Password);
        await page.Keyboard.PressAsync("Enter");
        await own.GetByRole(AriaRole.Img, new() { Name = "The key as a QR code" }).WaitForAsync();
        var device = new CodeDevice(await own.Locator("p.mono").InnerTextAsync());
        await own.GetByLabel("The six digits it shows").FillAsync(device.Shows(DateTimeOffset.UtcNow));
        await page.Keyboard.PressAsync("Enter");
        var paper = page.GetByRole(AriaRole.Region, new() { Name = "Recovery codes" });
        await paper.WaitForAsync();
        var codes = await paper.GetByRole(AriaRole.Listitem).AllInnerTextsAsync();
        codes.Count.ShouldBe(10);
        await paper.GetByRole(AriaRole.Button, new() { Name = "I have them on paper" }).ClickAsync();
        await own.GetByText("Recovery codes left: 10").WaitForAsync();

        var again = await use.PageAsync(null, phone);
        await again.GetByLabel("Name").FillAsync(name);
        await again.GetByLabel("Password", new() { Exact = true }).FillAsync(RunningService.Password);
        await again.Keyboard.PressAsync("Enter");
        await again.GetByText("Type the six digits that your device shows now, or a recovery code.").WaitForAsync();
        await again.GetByLabel("Code").FillAsync("000000");
        await again.Keyboard.PressAsync("Enter");
        await again.GetByText("That code is another one, or was used before.").WaitForAsync();
        await again.GetByLabel("Code").FillAsync(codes[0]);
        await again.Keyboard.PressAsync("Enter");
        await again.GetByRole(AriaRole.Heading, new() { Name = "My day" }).WaitForAsync();
    }

    [Fact]
    public async Task A_passkey_signs_in_by_itself_until_it_is_ended()
    {
        await use.Service.LetInAsync("quarrel", Role.Engineer);
        var page = await use.PageAsync("quarrel", host: "localhost");
        await KeepsPasskeysAsync(page);
        await page.GotoAsync("/you");
        var own = page.GetByRole(AriaRole.Region, new() { Name = "Second factor" });
        await own.GetByText("Add a passkey").ClickAsync();
        var form = own.GetByRole(AriaRole.Form, new() { Name = "A passkey" });
        await form.GetByLabel("What you call it").FillAsync("blue key on the ring");
        await form.GetByLabel("Your password, once more").FillAsync(RunningService.Password);
        await page.Keyboard.PressAsync("Enter");
        await page.GetByRole(AriaRole.Button, new() { Name = "I have them on paper" }).ClickAsync();
        await own.GetByText("Passkey 'blue key on the ring'").WaitForAsync();

        await SignOutAsync(page);
        var shown = page.WaitForRequestAsync("**/api/sign-in/passkey/console");
        await page.GetByRole(AriaRole.Button, new() { Name = "Sign in with a passkey" }).ClickAsync();
        await page.GetByText("Signed in as quarrel").WaitForAsync();
        using (var overheard = new HttpClient { BaseAddress = new UriBuilder(use.Service.Address) { Host = "localhost" }.Uri })
        using (var answer = new StringContent((await shown).PostData ?? "", System.Text.Encoding.UTF8, "application/json"))
            (await overheard.PostAsync("api/sign-in/passkey/console", answer, TestContext.Current.CancellationToken)).StatusCode.ShouldBe(
                System.Net.HttpStatusCode.Unauthorized
            );

        await SignOutAsync(page);
        await page.GetByLabel("Name").FillAsync("quarrel");
        await page.GetByLabel("Password", new() { Exact = true }).FillAsync(RunningService.Password);
        await page.Keyboard.PressAsync("Enter");
        await page.GetByText("Your second factor is a passkey, which the console asks for; elsewhere a recovery code does.").WaitForAsync();
        await page.GetByRole(AriaRole.Button, new() { Name = "Sign in with a passkey" }).ClickAsync();
        await page.GetByText("Signed in as quarrel").WaitForAsync();

        await own.GetByText("End 'blue key on the ring'").First.ClickAsync();
        await own.GetByRole(AriaRole.Form, new() { Name = "End 'blue key on the ring'" })
            .GetByLabel("Your password, once more")
            .FillAsync(RunningService.Password);
        await page.Keyboard.PressAsync("Enter");
        await own.GetByText("Nothing yet. Whoever learns your password is in.").WaitForAsync();
        await SignOutAsync(page);
        await page.GetByRole(AriaRole.Button, new() { Name = "Sign in with a passkey" }).ClickAsync();
        await page.GetByText("That passkey opens nothing here, or was asked for more than five minutes ago.").WaitForAsync();
    }

    [Fact]
    public async Task Who_shows_no_passkey_is_told_so_and_takes_another_way()
    {
        var page = await use.PageAsync(null, host: "localhost");
        await KeepsPasskeysAsync(page);

        await page.GetByRole(AriaRole.Button, new() { Name = "Sign in with a passkey" }).ClickAsync();

        await page.GetByText("No passkey was shown. Nothing was changed; try again, or take another way.").WaitForAsync();
    }

    /// <summary>The browser keeps passkeys, and looks who holds it without asking anybody (W3C Web Authentication, section 11).</summary>
    private static async Task KeepsPasskeysAsync(IPage page)
    {
        var devices = await page.Context.NewCDPSessionAsync(page);
        await devices.SendAsync("WebAuthn.enable");
        await devices.SendAsync(
            "WebAuthn.addVirtualAuthenticator",
            new()
            {
                ["options"] = new
                {
                    protocol = "ctap2",
                    transport = "internal",
                    hasResidentKey = true,
                    hasUserVerification = true,
                    isUserVerified = true,
                    automaticPresenceSimulation = true,
                },
            }
        );
    }

    private static async Task SignOutAsync(IPage page)
    {
        await page.EvaluateAsync("fetch('/api/sign-out', { method: 'POST' })");
        await page.ReloadAsync();
    }
}
