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

    [Fact]
    public async Task A_finger_that_was_on_its_way_when_the_step_changed_answers_no_step_that_nobody_has_read()
    {
        var ticket = await use.TypedTicketAsync("strap");
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}/run");
        var done = page.GetByRole(AriaRole.Button, new() { Name = "Done", Exact = true });
        await done.WaitForAsync();
        var at = await MiddleOfAsync(done);
        await page.EvaluateAsync(NoteWhatIsPressable, new[] { (int)at.X, (int)at.Y });

        await done.ClickAsync();

        await page.WaitForFunctionAsync("() => window.underTheFinger !== undefined");
        (await page.EvaluateAsync<string?>("() => window.underTheFinger")).ShouldBe("nothing to press");
        await page.WaitForFunctionAsync("() => window.stillPressable() !== 'nothing to press'");
    }

    /// <summary>What a finger would press that stays where it was, in the very moment in which another step is shown.</summary>
    private const string NoteWhatIsPressable = """
        ([x, y]) => {
          window.stillPressable = () => document.elementFromPoint(x, y).closest('button, input, a')?.textContent ?? 'nothing to press'
          const says = document.querySelector('#say').textContent
          new MutationObserver(() => {
            if (document.querySelector('#say').textContent !== says) window.underTheFinger ??= window.stillPressable()
          }).observe(document.body, { subtree: true, childList: true, characterData: true })
        }
        """;

    private static async Task<(float X, float Y)> MiddleOfAsync(ILocator of) =>
        await of.BoundingBoxAsync() is { } box
            ? (box.X + box.Width / 2, box.Y + box.Height / 2)
            : throw new InvalidOperationException("Not drawn.");

    private static Task DrawnAsync(IPage page) =>
        page.EvaluateAsync("() => new Promise(drawn => requestAnimationFrame(() => requestAnimationFrame(drawn)))");
}
