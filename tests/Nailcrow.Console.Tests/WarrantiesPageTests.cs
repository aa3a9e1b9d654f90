using System.Text;
using Microsoft.Playwright;

namespace Nailcrow.Console.Tests;

/// <summary>Warranties in the console: a list that stores can search, by what is written on a drive.</summary>
[Collection(OtherBrowser.Name)]
public sealed class WarrantiesPageTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Theory, InlineData(false), InlineData(true)]
    public async Task They_are_found_by_any_part_of_a_serial_or_model_and_lead_to_the_drive(bool phone)
    {
        var serial = phone ? "WARPHONE1A" : "WARDESK01A";
        var lines = Enumerable.Range(1, 120).Select(n => $"2050-01-01,WARMANY{(phone ? 'P' : 'D')}{n:000},,");
        var csv =
            $"until,serial,model,terms\n2061-03-31,{serial},,exchange in advance\n2019-01-31,,Hask H77,\n{string.Join('\n', lines)}\n";
        var lioth = await use.Service.SignInAsync("lioth");
        (
            await lioth.ImportAsync("warranties", new MemoryStream(Encoding.UTF8.GetBytes(csv)), dryRun: false, all: true, Ct)
        ).Imported.ShouldBe(122);

        var page = await use.PageAsync("sefa", phone);
        await page.GotoAsync("/stores");
        await page.GetByRole(AriaRole.Link, new() { Name = "Warranties" }).ClickAsync();
        var list = page.GetByRole(AriaRole.Region, new() { Name = "Warranties, those that end first first" });
        await list.GetByText("every Hask H77: ✕ its warranty ended on 2019-01-31").WaitForAsync();
        await list.GetByRole(AriaRole.Button, new() { Name = "Show more" }).ClickAsync();
        await page.GetByLabel("Serial or drive model").FillAsync(serial[3..].ToLowerInvariant());
        await list.GetByText("under warranty until 2061-03-31 (exchange in advance)").WaitForAsync();
        await list.GetByText("Hask H77").WaitForAsync(new() { State = WaitForSelectorState.Detached });

        await list.GetByRole(AriaRole.Link, new() { Name = serial }).ClickAsync();
        await page.GetByText("Warranty: under warranty until 2061-03-31").WaitForAsync();
        await page.GoBackAsync();
        await page.GetByLabel("Serial or drive model").FillAsync("no such thing");
        await page.GetByText("Nothing is known of “no such thing”.").WaitForAsync();
    }
}
