using System.Diagnostics;
using Microsoft.Playwright;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Console.Tests;

/// <summary>What a page says and keeps while nobody answers it.</summary>
[Collection(OtherBrowser.Name)]
public sealed class ContactTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static Task SeesAsync(IPage page, string text) => page.GetByText(text).First.WaitForAsync();

    private async Task SignalAsync(string signal)
    {
        using var kill = Process.Start("bash", ["-c", $"kill -{signal} {use.Service.Process.Id}"]);
        await kill.WaitForExitAsync(Ct);
    }

    [Fact]
    public async Task A_service_that_falls_silent_is_no_longer_called_live_and_comes_back_by_itself()
    {
        var ticket = await use.TypedTicketAsync();
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}");
        var contact = page.GetByText("◆ live");
        await contact.WaitForAsync();

        await SignalAsync("STOP"); // it still holds every connection, and says nothing
        try
        {
            await page.GetByText("◇ out of contact").First.WaitForAsync();
        }
        finally
        {
            await SignalAsync("CONT");
        }

        await contact.WaitForAsync();
        await (await use.AsAsync("dorrik")).WriteAsync(ticket, new NoteWritten("Heard again."), Ct);
        await SeesAsync(page, "Heard again.");
    }

    [Fact]
    public async Task What_was_read_and_what_was_filled_in_from_paper_is_there_after_a_reload_and_gone_once_it_was_sent()
    {
        var ticket = await use.TypedTicketAsync(until: "serial-out");
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}/run");
        var scan = page.GetByLabel("Scan, or type the serial");
        await scan.FillAsync("NOT-THIS-ONE");
        await page.ReloadAsync();
        (await scan.InputValueAsync()).ShouldBe("NOT-THIS-ONE");

        await page.GotoAsync($"/tickets/{ticket}/paper");
        var blank = page.Locator("fieldset[aria-current]").GetByRole(AriaRole.Textbox).First;
        await blank.FillAsync("CHASSIS-7");
        await page.ReloadAsync();
        (await blank.InputValueAsync()).ShouldBe("CHASSIS-7");

        await page.GotoAsync($"/tickets/{ticket}/run");
        await page.GetByRole(AriaRole.Button, new() { Name = "That is what I read" }).ClickAsync();
        await page.WaitForFunctionAsync("() => !document.querySelector('input.run-input')?.value");
    }
}
