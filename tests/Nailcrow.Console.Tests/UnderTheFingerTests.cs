using System.Text.RegularExpressions;
using Microsoft.Playwright;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Console.Tests;

/// <summary>A page that lives must not move what somebody is just pressing.</summary>
[Collection(OtherBrowser.Name)]
public sealed class UnderTheFingerTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task News_that_comes_while_a_button_is_held_down_moves_nothing_until_the_press_is_made()
    {
        var ticket = await use.TypedTicketAsync();
        var page = await use.PageAsync(phone: true);
        await page.AddInitScriptAsync(HowLongAPressMayTake);
        await page.GotoAsync($"/tickets/{ticket}");
        var button = page.GetByRole(AriaRole.Button, new() { Name = "Add evidence", Exact = true });
        await button.ScrollIntoViewIfNeededAsync();
        var (came, letOn) = (new TaskCompletionSource(), new TaskCompletionSource());
        await page.RouteAsync(
            new Regex($"/api/tickets/{ticket}(\\?.*)?$"),
            async route =>
            {
                came.TrySetResult();
                await letOn.Task;
                await route.ContinueAsync();
            }
        );

        await (await use.AsAsync("dorrik")).WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);
        await came.Task.WaitAsync(TimeSpan.FromMinutes(3), Ct);
        var at = await MiddleOfAsync(button);
        await page.Mouse.MoveAsync(at.X, at.Y);
        await page.Mouse.DownAsync();
        await page.RunAndWaitForResponseAsync(
            () =>
            {
                letOn.SetResult();
                return Task.CompletedTask;
            },
            answer => answer.Url.EndsWith($"/api/tickets/{ticket}", StringComparison.Ordinal)
        );
        await DrawnAsync(page);
        (await MiddleOfAsync(button)).Y.ShouldBe(at.Y, 2f); // a button that is held down is drawn a little lower
        await page.Mouse.UpAsync();

        await page.Locator("form").Filter(new() { HasText = "Add evidence" }).WaitForAsync();
        await page.GetByText("Assigned to ilka").WaitForAsync();
    }

    [Theory]
    [InlineData("strap", "/run", "Done")]
    [InlineData(null, "", "Take it")]
    [InlineData("strap", "", "Light on")]
    public async Task A_finger_that_was_on_its_way_presses_nothing_that_only_just_appeared(string? until, string where, string pressed)
    {
        var ticket = await use.TypedTicketAsync(until);
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}{where}");
        var button = page.GetByRole(AriaRole.Button, new() { Name = pressed, Exact = true });
        await button.ScrollIntoViewIfNeededAsync();
        await button.EvaluateAsync(NoteWhatIsPressable);

        await button.ClickAsync();

        await page.WaitForFunctionAsync("() => window.underTheFinger !== undefined");
        (await page.EvaluateAsync<string[]>("() => window.underTheFinger")).ShouldBeEmpty();
        await page.WaitForFunctionAsync("() => window.pressable().length > 0");
    }

    // News waits for five seconds at most (underTheFinger.test.ts), in which a machine under load may not have come from down to up.
    private const string HowLongAPressMayTake = """
        const set = window.setTimeout
        window.setTimeout = (then, ms, ...more) => set(then, ms === 5000 ? 600000 : ms, ...more)
        """;

    /// <summary>
    /// Which buttons anywhere on the page can be pressed that were not there before, in the very moment in which one that was pressed is
    /// gone.
    /// </summary>
    private const string NoteWhatIsPressable = """
        pressed => {
          const buttons = () => [...document.querySelectorAll('main button, main a[data-variant]')]
          const before = new Set(buttons())
          const hears = button => getComputedStyle(button).pointerEvents !== 'none'
          window.pressable = () => buttons().filter(b => !before.has(b) && hears(b)).map(b => b.textContent)
          new MutationObserver(() => {
            if (!pressed.isConnected) window.underTheFinger ??= window.pressable()
          }).observe(document.body, { subtree: true, childList: true })
        }
        """;

    private static async Task<(float X, float Y)> MiddleOfAsync(ILocator of) =>
        await of.BoundingBoxAsync() is { } box
            ? (box.X + box.Width / 2, box.Y + box.Height / 2)
            : throw new InvalidOperationException("Not drawn.");

    private static Task DrawnAsync(IPage page) =>
        page.EvaluateAsync("() => new Promise(drawn => requestAnimationFrame(() => requestAnimationFrame(drawn)))");
}
