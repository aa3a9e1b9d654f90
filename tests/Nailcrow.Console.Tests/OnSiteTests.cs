using Microsoft.Playwright;
using Nailcrow.Client.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Console.Tests;

/// <summary>What an engineer has in hand at the machine: the camera, a sheet of paper, a warning.</summary>
[Collection(OneBrowser.Name)]
public sealed class OnSiteTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static Task PressAsync(IPage page, string name) =>
        page.GetByRole(AriaRole.Button, new() { Name = name, Exact = true }).First.ClickAsync();

    private static Task SeesAsync(IPage page, string text) => page.GetByText(text).First.WaitForAsync();

    /// <summary>The step to do now; what comes next stands below it in grey.</summary>
    private static Task StandsAtAsync(IPage page, string says) => page.Locator("#say").GetByText(says).WaitForAsync();

    [Fact]
    public async Task The_label_of_the_drive_that_came_out_is_read_by_the_camera()
    {
        var ticket = await use.TypedTicketAsync(until: "serial-out");
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}/run");

        await PressAsync(page, "Scan with the camera");

        await StandsAtAsync(page, "Put the red sticker on the drive that came out.");
        (await (await use.AsAsync("ilka")).TicketAsync(ticket, Ct)).Swap.OutSerial.ShouldBe(ConsoleInUse.FailedDrive); // the label said S before it
    }

    [Fact]
    public async Task A_picture_taken_at_a_step_is_kept_with_it_and_shown_on_the_ticket()
    {
        var ticket = await use.TypedTicketAsync(until: "strap");
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}/run");
        await StandsAtAsync(page, "Put on the earthing strap");

        await page.GetByLabel("A picture of what you see")
            .SetInputFilesAsync(
                new FilePayload
                {
                    Name = "rack.png",
                    MimeType = "image/png",
                    Buffer = await page.ScreenshotAsync(),
                }
            );

        await SeesAsync(page, "Another picture (1 kept)");
        await page.GotoAsync($"/tickets/{ticket}");
        var picture = page.GetByAltText("strap, by ilka");
        await picture.WaitForAsync();
        await page.WaitForFunctionAsync("() => document.querySelector('img[alt=\"strap, by ilka\"]').naturalWidth > 0");
    }

    [Fact]
    public async Task What_stands_on_the_paper_goes_in_step_by_step_and_stops_where_something_is_missing()
    {
        var ticket = await use.TypedTicketAsync(until: "strap");
        var page = await use.PageAsync();
        await page.GotoAsync($"/tickets/{ticket}/paper");
        ILocator Step(string says) => page.Locator("fieldset").Filter(new() { HasText = says }).First;

        await Step("earthing strap").GetByLabel("Done").CheckAsync();
        await Step("Switch the locator light of").GetByLabel("Done").CheckAsync();
        await Step("Does exactly one chassis blink").GetByLabel("Yes").CheckAsync();
        await PressAsync(page, "Enter what is filled in");

        await SeesAsync(page, "3 answers are in. The sheet stands at: Scan the serial on the sticker of the chassis.");
        var run = (await (await use.AsAsync("ilka")).TicketAsync(ticket, Ct)).Run;
        run!.Visits.TakeLast(3).Select(v => $"{v.Step} {v.Answer}").ShouldBe(["strap done", "light-on done", "chassis-light yes"]); // the form was of this run
    }

    [Fact]
    public async Task Whoever_is_on_a_withdrawn_version_is_told_why_on_the_run()
    {
        var lead = await use.AsAsync("lioth");
        var text =
            "procedure: by-the-door\ntitle: By the door\ncomes-back: unchanged\nby-name: yes\napplies-to: "
            + "always\nnot-so: stuck\nchapters:\n  - chapter: One\n    steps:\n      - id: look\n        do: Look "
            + "at the door.\n      - id: seen\n        gate: It was looked at.\n        needs: seen-again\n        "
            + "then: end\n      - id: stuck\n        call: Call.\n        with: [asset]\n        then: back\n";
        var published = await lead.PublishAsync(
            new PublishAsk("by-the-door.yaml", new Dictionary<string, string> { ["by-the-door.yaml"] = text }),
            Ct
        );
        var ticket = await use.TypedTicketAsync();
        var ilka = await use.AsAsync("ilka");
        await ilka.WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);
        await ilka.WriteAsync(ticket, new ArrivedOnSite(), Ct);
        await ilka.StartRunAsync(ticket, "by-the-door", Ct);
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}/run");
        await StandsAtAsync(page, "Look at the door.");

        await lead.WithdrawAsync("by-the-door", published.Version!, "The door is another one.", Ct); // it was published above
        await page.ReloadAsync();

        (await page.GetByRole(AriaRole.Alert).First.TextContentAsync()).ShouldBe(
            "▲ This version of the procedure was withdrawn: The door is another one. Call before you go on."
        );
    }

    [Fact]
    public async Task The_library_shows_what_is_proved_and_the_sheet_as_it_would_be_on_a_machine()
    {
        var page = await use.PageAsync(person: "lioth");
        await page.GotoAsync("/procedures");
        await page.GetByRole(AriaRole.Link, new() { Name = "Hot swap in a front-loading appliance" }).ClickAsync();
        await SeesAsync(page, "◆ proved,");

        var machine = await (await use.AsAsync("lioth")).ApplianceAsync("FSC-0203", Ct);
        await page.GetByLabel("As it would be on").SelectOptionAsync(machine.Model.Id);

        await page.GetByRole(AriaRole.Region, new() { Name = "Preview" })
            .GetByRole(AriaRole.Listitem)
            .Filter(new() { HasText = "Put on the earthing strap" })
            .WaitForAsync();
    }
}
