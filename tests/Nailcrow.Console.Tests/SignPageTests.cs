using Microsoft.Playwright;

namespace Nailcrow.Console.Tests;

/// <summary>The customer reads what was done on the engineer's phone, and signs beneath it.</summary>
[Collection(OtherBrowser.Name)]
public sealed class SignPageTests(ConsoleInUse use)
{
    [Theory, InlineData(false), InlineData(true)]
    public async Task They_read_sign_with_a_finger_and_it_stands_with_what_they_read(bool phone)
    {
        var ticket = await use.TypedTicketAsync("joined");
        var page = await use.PageAsync("ilka", phone);
        await page.GotoAsync($"/tickets/{ticket}");
        await page.GetByRole(AriaRole.Link, new() { Name = "Have the customer sign on this screen" }).ClickAsync();
        await page.GetByText("What was wrong").WaitForAsync();
        await page.GetByLabel("Who signs for the customer").FillAsync("Norra Selmark");
        var done = page.GetByRole(AriaRole.Button, new() { Name = "The data is there, and this is so" });
        await done.ClickAsync();
        await page.GetByText("Nobody has signed in the field yet.").WaitForAsync();

        await WritesAsync(page);
        await page.GetByRole(AriaRole.Button, new() { Name = "Clear the field" }).ClickAsync();
        await done.ClickAsync();
        await page.GetByText("Nobody has signed in the field yet.").WaitForAsync();
        await WritesAsync(page);
        await done.ClickAsync();

        await page.GetByRole(AriaRole.Link, new() { Name = "what was signed" }).ClickAsync();
        var hand = page.GetByRole(AriaRole.Img, new() { Name = "Signature of Norra Selmark" });
        await hand.WaitForAsync();
        (await hand.EvaluateAsync<int>("image => image.decode().then(() => image.naturalWidth)")).ShouldBeGreaterThan(200);
        await page.GetByText("What was wrong").WaitForAsync();
        (await page.EvaluateAsync<int>("() => document.documentElement.scrollWidth - window.innerWidth")).ShouldBeLessThanOrEqualTo(0);
    }

    private static async Task WritesAsync(IPage page)
    {
        var glass = page.GetByRole(AriaRole.Img, new() { Name = "Sign here" });
        await glass.ScrollIntoViewIfNeededAsync();
        var box = (await glass.BoundingBoxAsync())!;
        await page.Mouse.MoveAsync(box.X + 20, box.Y + 90);
        await page.Mouse.DownAsync();
        foreach (var step in Enumerable.Range(1, 12))
            await page.Mouse.MoveAsync(box.X + 20 + step * 15, box.Y + 90 + (step % 2 == 0 ? 30 : -30));
        await page.Mouse.UpAsync();
    }
}
