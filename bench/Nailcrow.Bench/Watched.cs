using System.Globalization;
using System.Text.Json;
using Microsoft.Playwright;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>A page of the console in headless Chromium that counts the tasks which held it for more than 50 ms.</summary>
internal sealed class Watched : IAsyncDisposable
{
    // What the browser itself calls a long task (W3C Long Tasks API); shorter ones it does not report.
    private const string Watch =
        "() => { window.held = []; new PerformanceObserver(l => l.getEntries().forEach(e => window.held.push(e.duration))).observe({ type: 'longtask' }) }";
    private const string Held = "() => window.held.splice(0)";

    private readonly IPlaywright _playwright;
    private readonly IBrowser _browser;

    private Watched(IPlaywright playwright, IBrowser browser, IPage page) => (_playwright, _browser, Page) = (playwright, browser, page);

    public IPage Page { get; }

    /// <summary>A phone of 390 by 844 whose processor is slowed to a quarter, or a desk of 1280 by 800 as fast as the machine.</summary>
    public static async Task<Watched> SignedInAsync(RunningService service, string name, bool phone)
    {
        var playwright = await Playwright.CreateAsync();
        var browser = await playwright.Chromium.LaunchAsync(
            new()
            {
                ExecutablePath = Built.Browser,
                Args = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--disable-background-networking"],
            }
        );
        var context = await browser.NewContextAsync(
            new()
            {
                BaseURL = service.Address.ToString(),
                ViewportSize = phone ? new() { Width = 390, Height = 844 } : new() { Width = 1280, Height = 800 },
                HasTouch = phone,
                IsMobile = phone,
            }
        );
        var page = await context.NewPageAsync();
        await page.GotoAsync("/");
        await page.GetByLabel("Name").FillAsync(name);
        await page.GetByLabel("Password", new() { Exact = true }).FillAsync(RunningService.Password);
        await page.Keyboard.PressAsync("Enter");
        await page.GetByLabel("Password", new() { Exact = true }).WaitForAsync(new() { State = WaitForSelectorState.Hidden });
        if (phone)
            await (await context.NewCDPSessionAsync(page)).SendAsync("Emulation.setCPUThrottlingRate", new() { ["rate"] = 4 });
        return new(playwright, browser, page);
    }

    /// <summary>What loading took is another measurement: watching begins once the page is there.</summary>
    public async Task OpenAsync(string path, string shows)
    {
        await Page.GotoAsync(path);
        await Page.Locator(shows).First.WaitForAsync(new() { Timeout = 60_000 });
        await BeginAsync();
    }

    public async Task BeginAsync()
    {
        await Page.WaitForTimeoutAsync(1500);
        await Page.EvaluateAsync(Watch);
    }

    public async Task TellAsync(string what)
    {
        await Page.WaitForTimeoutAsync(500);
        var held = (await Page.EvaluateAsync<JsonElement>(Held)).EnumerateArray().Select(e => e.GetDouble()).ToList();
        Told.Plain(
            $"{what}: tasks over 50 ms",
            held.Count,
            held.Count == 0 ? "" : string.Create(CultureInfo.InvariantCulture, $"longest {held.Max():0} ms"),
            "0"
        );
    }

    public async Task ScrollAsync()
    {
        for (var i = 0; i < 60; i++)
        {
            await Page.Mouse.WheelAsync(0, 1200);
            await Page.WaitForTimeoutAsync(30);
        }
    }

    public async ValueTask DisposeAsync()
    {
        await _browser.DisposeAsync();
        _playwright.Dispose();
    }
}
