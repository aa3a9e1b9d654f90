using Microsoft.Playwright;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Console.Tests;

/// <summary>What a dispatcher and stores do in the console.</summary>
[Collection(OtherBrowser.Name)]
public sealed class DeskTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_dispatcher_gives_a_ticket_to_whoever_is_offered_first_and_it_leaves_the_pile()
    {
        var dorrik = await use.Service.SignInAsync("dorrik");
        var ticket = (await dorrik.ReportAsync(new FaultAsk("FSC-0426", "Beeper on the pier", Bay: "3"), Ct)).Ticket;
        var page = await use.PageAsync("dorrik");
        await page.GotoAsync("/desk");
        var line = page.GetByRole(AriaRole.Listitem).Filter(new() { HasText = $"T-{ticket}" });

        await line.GetByRole(AriaRole.Button).First.ClickAsync();

        await line.GetByText("no visit planned").WaitForAsync();
        (await dorrik.TicketAsync(ticket, Ct)).Engineer.ShouldNotBeNull();
    }

    [Fact]
    public async Task Stores_take_a_part_that_is_warned_of_only_with_a_reason()
    {
        var lioth = await use.Service.SignInAsync("lioth");
        await lioth.ImportAsync(
            "drives",
            new MemoryStream("serial,model,size,depot\nHSKCONS0001,Hask H12-A,12000138625024,Main\n"u8.ToArray()),
            dryRun: false,
            all: false,
            Ct
        );
        var ticket = (await lioth.ReportAsync(new FaultAsk("FSC-0409", "Dark lamp", Bay: "4"), Ct)).Ticket;
        await lioth.WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);
        var page = await use.PageAsync("sefa");
        await page.GotoAsync($"/tickets/{ticket}/bring");
        var part = page.GetByRole(AriaRole.Article, new() { Name = "HSKCONS0001" });
        await part.GetByText("Its tracks overlap (shingled)").WaitForAsync();
        (await part.GetByRole(AriaRole.Button, new() { Name = "Reserve it" }).IsDisabledAsync()).ShouldBeTrue();

        await part.GetByLabel("Why HSKCONS0001 is taken all the same").FillAsync("The only one within two days.");
        await part.GetByRole(AriaRole.Button, new() { Name = "Reserve it" }).ClickAsync();

        await page.GetByText("although warned: The only one within two days.").WaitForAsync();
    }

    [Fact]
    public async Task A_list_is_checked_before_it_is_brought_in()
    {
        var page = await use.PageAsync("dorrik");
        await page.GotoAsync("/lists");
        await page.GetByLabel("What is in it").SelectOptionAsync("qualified");
        await page.Locator("input[type=file]")
            .SetInputFilesAsync(
                new FilePayload
                {
                    Name = "q.csv",
                    MimeType = "text/csv",
                    Buffer = "appliance-model,drive-model\ntollard-t5,Cindral C9\nno-such,Cindral C9\n"u8.ToArray(),
                }
            );

        await page.GetByRole(AriaRole.Button, new() { Name = "Check it" }).ClickAsync();
        await page.GetByText("line 3: appliance-model is 'no-such'").WaitForAsync();
        await page.GetByRole(AriaRole.Button, new() { Name = "Bring 1 rows in" }).ClickAsync();

        await page.GetByText("1 brought in").WaitForAsync();
    }

    [Fact]
    public async Task A_line_nobody_understood_is_tried_and_made_a_rule()
    {
        var port = await use.Service.SyslogPortAsync();
        using var udp = new System.Net.Sockets.UdpClient();
        await udp.SendAsync("<131>1 - tollardt5-32 storage - - - lamp of shelf 4 weeps"u8.ToArray(), "127.0.0.1", port, Ct);
        var page = await use.PageAsync("dorrik");
        await page.GotoAsync("/intake");
        await page.GetByRole(AriaRole.Article)
            .Filter(new() { HasText = "weeps" })
            .GetByRole(AriaRole.Button, new() { Name = "Make a rule" })
            .ClickAsync();

        await page.GetByLabel("Pattern, with", new() { Exact = false }).FillAsync(@"lamp of shelf (?<bay>\d+) weeps");
        await page.GetByLabel("Id of the rule").FillAsync("weeping");
        await page.GetByRole(AriaRole.Button, new() { Name = "Try it" }).ClickAsync();
        await page.GetByText("weeping matches: log-lines, bay 4.").WaitForAsync();
        await page.GetByRole(AriaRole.Button, new() { Name = "Keep the rule" }).ClickAsync();

        await page.GetByText("1 messages are understood by it now").WaitForAsync();
    }
}
