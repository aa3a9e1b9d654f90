using Deque.AxeCore.Playwright;
using Microsoft.Playwright;

namespace Nailcrow.Console.Tests;

/// <summary>Every page held to WCAG 2.2 AA as far as axe can see, by day and by night, on a phone and on a desk.</summary>
[Collection(OtherBrowser.Name)]
public sealed class LookTests(ConsoleInUse use)
{
    private static readonly string[] AtADesk =
    [
        "/desk",
        "/machines",
        "/machines/FSC-0402",
        "/machines/FSC-0203",
        "/drives/CDR12T0005",
        "/customers",
        "/stores",
        "/stores/outbox",
        "/you",
        "/people",
        "/intake",
        "/lists",
        "/procedures",
        "/procedures/screen-frozen",
    ];

    /// <summary>All of it is there: nothing is fetched any more.</summary>
    private static async Task DrawnAsync(IPage page)
    {
        await page.GetByRole(AriaRole.Heading).First.WaitForAsync();
        await Fetching(page).WaitForAsync(new() { State = WaitForSelectorState.Detached });
    }

    private static ILocator Fetching(IPage page) => page.GetByRole(AriaRole.Status).Filter(new() { HasText = "Fetching" }).First;

    private static async Task<string> ViolationsAsync(IPage page) =>
        string.Join("\n", (await page.RunAxe()).Violations.SelectMany(v => v.Nodes.Select(n => $"{page.Url} {v.Id}: {n.Html}")));

    // Colours hang on the scheme and what is where on the size, so that two looks at each page see what four would.
    [Theory]
    [InlineData(ColorScheme.Light, true)]
    [InlineData(ColorScheme.Dark, false)]
    public async Task Every_page_can_be_read_by_everybody(ColorScheme scheme, bool phone)
    {
        var (scan, rebuild) = (await use.TypedTicketAsync("serial-out"), await use.TypedTicketAsync("joined"));
        var outside = await use.PageAsync(null, phone, scheme);
        await outside.GetByLabel("Password", new() { Exact = true }).WaitForAsync();
        (await ViolationsAsync(outside)).ShouldBe("");
        var page = await use.PageAsync("ilka", phone, scheme);

        foreach (
            var path in new[]
            {
                "/",
                "/report",
                $"/tickets/{scan}",
                $"/tickets/{scan}/run",
                $"/tickets/{rebuild}/run",
                $"/tickets/{rebuild}/rebuild",
                $"/tickets/{rebuild}/return",
                $"/tickets/{scan}/snapshot",
                $"/tickets/{scan}/bring",
            }.Concat(phone == (scheme == ColorScheme.Dark) ? AtADesk : [])
        ) // each of these by day and by night, on a desk and a phone
        {
            await page.GotoAsync(path);
            await DrawnAsync(page);
            (await ViolationsAsync(page)).ShouldBe("");
            (await page.EvaluateAsync<bool>("document.documentElement.scrollWidth <= window.innerWidth")).ShouldBeTrue(
                $"{path} is wider than the screen"
            );
        }
    }

    [Theory]
    [InlineData(ColorScheme.Light, true)]
    [InlineData(ColorScheme.Dark, false)]
    public async Task What_only_an_administrator_sees_can_be_read_by_everybody(ColorScheme scheme, bool phone)
    {
        var page = await use.PageAsync("admin", phone, scheme);

        foreach (var path in new[] { "/you", "/people", "/people/ilka", "/people/security" })
        {
            await page.GotoAsync(path);
            await DrawnAsync(page);
            (await ViolationsAsync(page)).ShouldBe("");
            (await page.EvaluateAsync<bool>("document.documentElement.scrollWidth <= window.innerWidth")).ShouldBeTrue(
                $"{path} is wider than the screen"
            );
        }
    }

    [Fact]
    public async Task A_page_can_be_read_by_everybody_while_it_waits_and_when_it_gets_no_answer()
    {
        var ticket = await use.TypedTicketAsync("pull");
        List<string> paths = [.. AtADesk.Except(["/lists"]), "/", "/?find=OLD", "/report", $"/tickets/{ticket}", $"/tickets/{ticket}/run"];

        // Most of it is waiting: several pages at once.
        var looks = new List<Task>();
        foreach (var part in paths.Chunk((paths.Count + 2) / 3))
            looks.Add(CanBeReadWhileTheyWaitAsync(await use.PageAsync(), part));
        await Task.WhenAll(looks);
    }

    private static async Task CanBeReadWhileTheyWaitAsync(IPage page, IEnumerable<string> paths)
    {
        TaskCompletionSource silence = new();
        await page.RouteAsync(
            url => url.Contains("/api/", StringComparison.Ordinal) && !url.EndsWith("/api/me", StringComparison.Ordinal),
            async route =>
            {
                await silence.Task;
                await route.AbortAsync("connectionrefused");
            }
        );

        foreach (var path in paths)
        {
            silence = new();
            await page.GotoAsync(path, new() { WaitUntil = WaitUntilState.DOMContentLoaded });
            await SaysThatItWaitsAsync(page, path);
            (await ViolationsAsync(page)).ShouldBe("", $"{path} while it waits");
            silence.SetResult();
            await page.GetByRole(AriaRole.Alert).First.WaitForAsync();
            (await ViolationsAsync(page)).ShouldBe("", $"{path} without an answer");
        }
    }

    private static async Task SaysThatItWaitsAsync(IPage page, string path)
    {
        try
        {
            await Fetching(page).WaitForAsync();
        }
        catch (TimeoutException)
        {
            throw new ShouldAssertException($"{path} never said that it waits; it shows: {await page.Locator("body").InnerTextAsync()}");
        }
    }

    [Fact]
    public async Task A_page_that_was_opened_while_the_service_was_away_comes_once_it_is_back()
    {
        var page = await use.PageAsync();
        await page.RouteAsync("**/api/me", route => route.AbortAsync("connectionrefused"));
        await page.GotoAsync("/desk", new() { WaitUntil = WaitUntilState.DOMContentLoaded });
        await page.GetByRole(AriaRole.Alert).Filter(new() { HasText = "this page tries again" }).WaitForAsync();

        await page.UnrouteAsync("**/api/me");

        await page.GetByRole(AriaRole.Heading, new() { Name = "Desk" }).WaitForAsync();
    }

    [Fact]
    public async Task From_360_pixels_nothing_has_to_be_scrolled_sideways()
    {
        var ticket = await use.TypedTicketAsync("pull");
        var page = await use.PageAsync(phone: true);
        await page.SetViewportSizeAsync(360, 740);

        foreach (
            var path in new[]
            {
                "/",
                "/desk",
                $"/tickets/{ticket}/bring",
                $"/tickets/{ticket}",
                $"/tickets/{ticket}/run",
                $"/tickets/{ticket}/paper",
                $"/tickets/{ticket}/snapshot",
            }
        )
        {
            await page.GotoAsync(path);
            await DrawnAsync(page);
            (await page.EvaluateAsync<int>("document.documentElement.scrollWidth")).ShouldBeLessThanOrEqualTo(360, path);
        }
    }

    [Fact]
    public async Task The_bay_in_question_says_so_to_a_screen_reader()
    {
        var ticket = await use.TypedTicketAsync("pull");
        var page = await use.PageAsync();
        await page.GotoAsync($"/tickets/{ticket}/run");

        await page.GetByRole(
                AriaRole.Button,
                new() { NameString = "Bay 5, this one: dropped, faulted, serial CDR12T0005, pulling it is safe" }
            )
            .WaitForAsync();
    }
}
