using Microsoft.Playwright;

namespace Nailcrow.Console.Tests;

/// <summary>Every button that a ticket shows to a person is pressed, and none of them is refused.</summary>
[Collection(OneBrowser.Name)]
public sealed class EveryMoveTests(ConsoleInUse use)
{
    [Theory, InlineData("ilka"), InlineData("dorrik"), InlineData("sefa"), InlineData("lioth")]
    public async Task Every_button_that_is_shown_to_a_person_is_taken_by_the_service(string person)
    {
        var (ticket, beside) = (await use.TypedTicketAsync(), await use.TypedTicketAsync());
        var page = await use.PageAsync(person);
        var pressed = new HashSet<string>();
        await page.GotoAsync($"/tickets/T-{ticket}");
        var others = page.GetByRole(AriaRole.Region, new() { Name = "Other things to do" });
        await others.WaitForAsync();
        while (await NextAsync(others, pressed) is { } name)
        {
            pressed.Add(name);
            await others.GetByRole(AriaRole.Button, new() { Name = name, Exact = true }).First.ClickAsync();
            var form = others.Locator("form");
            if (await form.CountAsync() > 0)
            {
                await FillAsync(form, $"T-{beside}");
                await form.GetByRole(AriaRole.Button).ClickAsync();
                await form.WaitForAsync(new() { State = WaitForSelectorState.Detached });
            }
            await page.WaitForFunctionAsync("() => !document.querySelector('[data-loading]')");
            (await page.GetByRole(AriaRole.Alert).AllTextContentsAsync()).ShouldBeEmpty($"{person} pressed '{name}'");
        }
        pressed.Count.ShouldBeGreaterThan(3);
    }

    /// <summary>Something not yet pressed; what ends the ticket comes last.</summary>
    private static async Task<string?> NextAsync(ILocator others, HashSet<string> pressed)
    {
        var names = await others.Locator("> .row > button").AllTextContentsAsync();
        return names
            .Where(n => !pressed.Contains(n))
            .OrderBy(n => EndsIt.Any(e => n.StartsWith(e, StringComparison.Ordinal)) ? 1 : 0)
            .FirstOrDefault();
    }

    // After these there is little left to press.
    private static readonly string[] EndsIt = ["Cancel", "Close", "Hand over", "There is nothing to swap", "It is the same fault"];

    private static async Task FillAsync(ILocator form, string beside)
    {
        foreach (var field in await form.Locator("textarea, input").AllAsync())
        {
            var kind = await field.GetAttributeAsync("type");
            var isRequired = await field.GetAttributeAsync("required") is not null;
            if (!isRequired || await field.InputValueAsync() != "")
                continue;
            await field.FillAsync(
                kind == "datetime-local"
                    ? DateTime
                        .Now.AddHours(24 + (await field.GetAttributeAsync("id"))!.Length % 2)
                        .ToString("yyyy-MM-ddTHH:mm", System.Globalization.CultureInfo.InvariantCulture)
                : (await field.GetAttributeAsync("pattern"))?.StartsWith("(T-", StringComparison.Ordinal) == true ? beside
                : "As agreed with the porter"
            );
        }
        if (await form.Locator("input[type=datetime-local]").CountAsync() == 2)
            await form.Locator("input[type=datetime-local]")
                .Nth(1)
                .FillAsync(DateTime.Now.AddHours(27).ToString("yyyy-MM-ddTHH:mm", System.Globalization.CultureInfo.InvariantCulture));
        foreach (var choice in await form.Locator("select").AllAsync())
            if (await choice.InputValueAsync() == "")
                await choice.SelectOptionAsync(await choice.Locator("option[value=ilka]").CountAsync() > 0 ? "ilka" : "tamsel");
    }

    [Fact]
    public async Task Signed_out_in_the_middle_the_page_stays_and_what_was_typed_is_sent_after_signing_in_again()
    {
        var ticket = await use.TypedTicketAsync();
        var page = await use.PageAsync();
        await page.GotoAsync($"/tickets/T-{ticket}");
        await ToWriteANote(page).ClickAsync();
        await page.GetByLabel("What to remember").FillAsync("The key is with the porter");
        await page.Context.ClearCookiesAsync();

        await page.Locator("form").GetByRole(AriaRole.Button, new() { Name = "Note", Exact = true }).ClickAsync();
        await page.GetByText("You were signed out. What you typed is still there beneath.").WaitForAsync();
        await page.GetByLabel("Password", new() { Exact = true }).FillAsync(Running.RunningService.Password);
        await page.Keyboard.PressAsync("Enter");
        await page.GetByText("You were signed out.").WaitForAsync(new() { State = WaitForSelectorState.Detached });
        (await page.GetByLabel("What to remember").InputValueAsync()).ShouldBe("The key is with the porter");
        await page.Locator("form").GetByRole(AriaRole.Button, new() { Name = "Note", Exact = true }).ClickAsync();

        await page.GetByText("Note: The key is with the porter").WaitForAsync();
    }

    // An entry may be heard of before the answer to whoever sent it: until then their form stands open, with a button of the same name.
    private static ILocator ToWriteANote(IPage page) =>
        page.GetByRole(
            AriaRole.Button,
            new()
            {
                Name = "Note",
                Exact = true,
                Expanded = false,
            }
        );

    [Fact]
    public async Task What_is_typed_survives_a_reload_and_is_gone_once_it_was_sent()
    {
        var ticket = await use.TypedTicketAsync();
        var page = await use.PageAsync();
        await page.GotoAsync($"/tickets/T-{ticket}");
        await ToWriteANote(page).ClickAsync();
        await page.GetByLabel("What to remember").FillAsync("Half a thou");

        await page.ReloadAsync();
        await ToWriteANote(page).ClickAsync();
        (await page.GetByLabel("What to remember").InputValueAsync()).ShouldBe("Half a thou");
        await page.GetByLabel("What to remember").FillAsync("Half a thought");
        await page.Locator("form").GetByRole(AriaRole.Button, new() { Name = "Note", Exact = true }).ClickAsync();
        await page.GetByText("Note: Half a thought").WaitForAsync();

        await ToWriteANote(page).ClickAsync();
        (await page.GetByLabel("What to remember").InputValueAsync()).ShouldBe("");
    }

    [Fact]
    public async Task No_page_is_wider_than_the_narrowest_phone()
    {
        var ticket = await use.TypedTicketAsync("snapshot-before");
        var page = await use.PageAsync();
        await page.SetViewportSizeAsync(320, 700);
        string[] rooms =
        [
            "/",
            "/desk",
            "/machines",
            "/machines/FSC-0203",
            "/stores",
            "/stores/outbox",
            "/procedures",
            "/procedures/front-hot",
            "/intake",
            "/lists",
            "/report",
        ];
        string[] ofTicket = ["", "/bring", "/run", "/return", "/snapshot", "/rebuild", "/paper"];
        foreach (var path in rooms.Concat(ofTicket.Select(p => $"/tickets/T-{ticket}{p}")))
        {
            await page.GotoAsync(path);
            await page.Locator("h1").First.WaitForAsync();
            (await page.EvaluateAsync<int>("() => document.documentElement.scrollWidth - window.innerWidth")).ShouldBeLessThanOrEqualTo(
                0,
                path
            );
        }
    }

    [Fact]
    public async Task Every_page_is_called_after_its_heading()
    {
        var page = await use.PageAsync();
        foreach (
            var (path, title) in new[]
            {
                ("/", "My day"),
                ("/desk", "Desk"),
                ("/machines", "Machines"),
                ("/stores", "Stores"),
                ("/stores/outbox", "Going out"),
                ("/procedures", "Procedures"),
            }
        )
        {
            await page.GotoAsync(path);
            await page.WaitForFunctionAsync("title => document.title.startsWith(title)", title);
            (await page.Locator("h1").CountAsync()).ShouldBe(1, path);
        }
    }
}
