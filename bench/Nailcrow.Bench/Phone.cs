using System.Globalization;
using System.Text.Json;
using Microsoft.Playwright;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>A procedure of 500 steps on a phone: 390 by 844, its processor slowed to a quarter. Counts tasks that hold the page for more than 50 ms.</summary>
internal static class Phone
{
    private const int Steps = 500;
    private const int Followed = 40;

    // What the browser itself calls a long task (W3C Long Tasks API); shorter ones it does not report.
    private const string Watch =
        "() => { window.held = []; new PerformanceObserver(l => l.getEntries().forEach(e => window.held.push(e.duration))).observe({ type: 'longtask' }) }";
    private const string Held = "() => window.held.splice(0)";

    public static async Task MeasureAsync()
    {
        await using var service = await RunningService.StartPeopledAsync(assembly: Published.Service);
        var ticket = await TicketAsync(service);
        using var playwright = await Playwright.CreateAsync();
        await using var browser = await playwright.Chromium.LaunchAsync(
            new()
            {
                ExecutablePath = "/usr/bin/chromium",
                Args = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--disable-background-networking"],
            }
        );
        var context = await browser.NewContextAsync(
            new()
            {
                BaseURL = service.Address.ToString(),
                ViewportSize = new() { Width = 390, Height = 844 },
                HasTouch = true,
                IsMobile = true,
            }
        );
        var page = await context.NewPageAsync();
        await SignInAsync(page);
        await (await context.NewCDPSessionAsync(page)).SendAsync("Emulation.setCPUThrottlingRate", new() { ["rate"] = 4 });

        await OpenAsync(page, $"/tickets/{ticket}/run", "progress[aria-label='Step 1 of 500']");
        await FollowAsync(page, Followed);
        await TellAsync(page, $"{Followed} steps followed");
        await page.GetByRole(AriaRole.Button, new() { Name = "The whole sheet" }).ClickAsync();
        await page.Locator("section[aria-label='The whole sheet']").WaitForAsync();
        await TellAsync(page, "the whole sheet opened");
        await ScrollAsync(page);
        await TellAsync(page, "the whole sheet scrolled to its end");
        await FollowAsync(page, 5);
        await TellAsync(page, "5 steps followed with it open");

        await OpenAsync(page, $"/tickets/{ticket}/paper", "text=Part 20");
        await page.EvaluateAsync(OpenChapters);
        await TellAsync(page, "the form of its paper, 4 more chapters opened");
        await ScrollAsync(page);
        await TellAsync(page, "the form of its paper scrolled");
        await page.Locator("input.paper-time").Nth(6).PressSequentiallyAsync("1015", new() { Delay = 60 });
        await TellAsync(page, "a time typed into it");

        await page.GotoAsync("/procedures/long-one");
        await page.GetByLabel("As it would be on").SelectOptionAsync(new SelectOptionValue { Index = 1 });
        await page.Locator($"text=Turn screw {Steps - 2} by one turn").First.WaitForAsync();
        await page.WaitForTimeoutAsync(1500);
        await page.EvaluateAsync(Watch);
        await ScrollAsync(page);
        await TellAsync(page, "its preview in the library scrolled");
    }

    // Pressed from within the page: a driver that looks for a button by its role walks the whole page for it, in the page's own time.
    private const string PressDone = """
        async steps => {
          const place = () => document.querySelector('progress')?.value
          for (let i = 0; i < steps; i++) {
            const from = place()
            Array.from(document.querySelectorAll('.run-foot button')).find(b => b.textContent === 'Done').click()
            while (place() === from) await new Promise(done => setTimeout(done, 20))
          }
        }
        """;

    private static Task FollowAsync(IPage page, int steps) => page.EvaluateAsync(PressDone, steps);

    private static async Task ScrollAsync(IPage page)
    {
        for (var i = 0; i < 60; i++)
        {
            await page.Mouse.WheelAsync(0, 1200);
            await page.WaitForTimeoutAsync(30);
        }
    }

    private const string OpenChapters = """
        async () => {
          for (const summary of Array.from(document.querySelectorAll('details:not([open]) > summary')).slice(0, 4)) {
            summary.click()
            await new Promise(done => setTimeout(done, 300))
          }
        }
        """;

    /// <summary>What loading took is another measurement: watching begins once the page is there.</summary>
    private static async Task OpenAsync(IPage page, string path, string shows)
    {
        await page.GotoAsync(path);
        await page.Locator(shows).First.WaitForAsync(new() { Timeout = 60_000 });
        await page.WaitForTimeoutAsync(1500);
        await page.EvaluateAsync(Watch);
    }

    private static async Task TellAsync(IPage page, string what)
    {
        await page.WaitForTimeoutAsync(500);
        var held = (await page.EvaluateAsync<JsonElement>(Held)).EnumerateArray().Select(e => e.GetDouble()).ToList();
        Told.Plain(
            $"{what}: tasks over 50 ms",
            held.Count,
            held.Count == 0 ? "" : string.Create(CultureInfo.InvariantCulture, $"longest {held.Max():0} ms"),
            "0"
        );
    }

    private static async Task SignInAsync(IPage page)
    {
        await page.GotoAsync("/");
        await page.GetByLabel("Name").FillAsync("ilka");
        await page.GetByLabel("Password", new() { Exact = true }).FillAsync(RunningService.Password);
        await page.Keyboard.PressAsync("Enter");
        await page.GetByRole(AriaRole.Heading, new() { Name = "My day" }).WaitForAsync();
    }

    private static async Task<long> TicketAsync(RunningService service)
    {
        var (ilka, lead) = (await service.SignInAsync("ilka"), await service.SignInAsync("lioth"));
        await lead.PublishAsync(new("long-one.yaml", new Dictionary<string, string> { ["long-one.yaml"] = Long() }), default);
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off", Bay: "5"), default)).Ticket;
        await ilka.WriteAsync(ticket, new EngineerAssigned("ilka"), default);
        await ilka.WriteAsync(ticket, new ArrivedOnSite(), default);
        await ilka.StartRunAsync(ticket, "long-one", default);
        return ticket;
    }

    private static string Long() =>
        "procedure: long-one\ntitle: A long one\ncomes-back: unchanged\nby-name: yes\napplies-to: always\nnot-so: stuck\nchapters:\n"
        + string.Concat(Enumerable.Range(0, 20).Select(Chapter))
        + "      - id: seen\n        gate: It was looked at.\n        needs: seen-again\n        then: end\n    "
        + "  - id: stuck\n        call: Call.\n        with: [asset]\n        then: back\n";

    private static string Chapter(int chapter) =>
        $"  - chapter: Part {chapter + 1}\n    steps:\n"
        + string.Concat(
            Enumerable
                .Range(1, 25)
                .Select(i => chapter * 25 + i)
                .Where(i => i <= Steps - 2)
                .Select(i =>
                    $"      - id: turn{i}\n        do: Turn screw {i} by one turn and look at the mark beside it.\n        see: The mark has moved.\n"
                )
        );
}
