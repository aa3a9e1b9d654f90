using Microsoft.Playwright;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;

namespace Nailcrow.Console.Tests;

/// <summary>Carriers and makers in the console: who they are, what a ticket asks of them, and what could not be said.</summary>
[Collection(OtherBrowser.Name)]
public sealed class OutboxPageTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task<long> GoesBackAsync(string serial)
    {
        var ticket = await use.TypedTicketAsync();
        var (sefa, ilka) = (await use.Service.SignInAsync("sefa"), await use.Service.SignInAsync("ilka"));
        await (await use.Service.SignInAsync("dorrik")).WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);
        await sefa.WriteAsync(ticket, new PartReserved(serial, "Cindral C12T", 14_000_000_000_000, "Loft"), Ct);
        await sefa.WriteAsync(ticket, new PartIssued(serial, "ilka"), Ct);
        await ilka.WriteAsync(ticket, new PartGivenUp(serial, NoReplacement.DeadOnArrival), Ct);
        return ticket;
    }

    [Theory, InlineData(false), InlineData(true)]
    public async Task An_administrator_says_who_can_be_asked_and_the_engineer_asks_them_from_the_drive(bool phone)
    {
        var (name, serial) = phone ? ("Cindral By Phone", "OUTPHONE1A") : ("Cindral At Desk", "OUTDESK01A");
        await using var maker = await RunningStandIn.MakerAsync();
        var ticket = await GoesBackAsync(serial);
        var admin = await use.PageAsync("admin", phone);
        await admin.GotoAsync("/stores/outbox");
        var form = admin.GetByRole(AriaRole.Form, new() { Name = "Add a carrier, maker or mail server" });
        await form.GetByLabel("Name, as it stands on tickets").FillAsync(name);
        await form.GetByLabel("What they are").SelectOptionAsync("maker");
        await form.GetByLabel("Where they answer").FillAsync("somewhere");
        await form.GetByRole(AriaRole.Button, new() { Name = "Keep it" }).ClickAsync();
        await form.GetByText("The address is where they answer").WaitForAsync();
        await form.GetByLabel("Where they answer").FillAsync(maker.Address.AbsoluteUri);
        await form.GetByLabel("What both sign with").FillAsync(RunningStandIn.PartnersSecret);
        await form.GetByRole(AriaRole.Button, new() { Name = "Keep it" }).ClickAsync();
        await form.GetByText($"{name} is asked at {maker.Address.AbsoluteUri}.").WaitForAsync();

        var page = await use.PageAsync("ilka", phone);
        await page.GotoAsync($"/tickets/{ticket}/return");
        var drive = page.GetByRole(AriaRole.Region, new() { Name = $"Otherwise with {serial}" });
        await drive.GetByRole(AriaRole.Button, new() { Name = "Ask its maker" }).ClickAsync();
        await drive.GetByLabel("Maker", new() { Exact = true }).SelectOptionAsync(name);
        await drive.GetByLabel("What for").SelectOptionAsync("advance-exchange");
        await drive.GetByRole(AriaRole.Button, new() { Name = "Ask its maker" }).Last.ClickAsync();

        var said = page.GetByRole(AriaRole.Region, new() { Name = "What carriers and makers say" });
        await said.GetByText($"{name} takes {serial} back under AX-").WaitForAsync();
        var send = page.Locator("section").Filter(new() { HasText = $"Send {serial} back: dead on arrival, to its maker" });
        (await send.GetByLabel("Authorisation number").InputValueAsync()).ShouldStartWith("AX-");
        await admin.GetByRole(AriaRole.Button, new() { Name = $"Ask {name} no more" }).ClickAsync();
    }

    [Fact]
    public async Task What_could_not_be_said_stands_in_a_list_with_why_and_is_sent_again_by_a_press()
    {
        await using var carrier = await RunningStandIn.CarrierAsync();
        await carrier.HandAsync("behave/down");
        var admin = await use.Service.SignInAsync("admin");
        await admin.PutPartnerAsync("Nightline", new(PartnerKind.Carrier, carrier.Address.AbsoluteUri, RunningStandIn.PartnersSecret), Ct);
        var ticket = await GoesBackAsync("OUTLOST01B");
        await (await use.Service.SignInAsync("ilka")).WriteAsync(
            ticket,
            new ReturnOpened("OUTLOST01B", ReturnReason.DeadOnArrival, new(HolderKind.Depot, "Loft")),
            Ct
        );
        var page = await use.PageAsync("ilka");
        await page.GotoAsync($"/tickets/{ticket}/return");
        var box = page.Locator("section").Filter(new() { HasText = "Have a carrier fetch it: OUTLOST01B" });
        await box.GetByRole(AriaRole.Button, new() { Name = "Have a carrier fetch it" }).ClickAsync();
        await page.GetByText("Nightline was asked to fetch it, and has not answered yet").First.WaitForAsync();

        await page.GotoAsync("/stores");
        await page.GetByRole(AriaRole.Link, new() { Name = "What goes out to carriers, to makers and by mail" }).ClickAsync();
        await page.GetByText("given up", new() { Exact = false }).First.WaitForAsync();
        await page.GetByText("Nightline answered 503: We are down for the night.").WaitForAsync();
        await carrier.HandAsync("behave/well");
        await page.GetByRole(AriaRole.Button, new() { Name = "Send it again now" }).ClickAsync();
        await page.GetByText("Everything that had to be said was said.").WaitForAsync();

        await page.GotoAsync($"/tickets/{ticket}/return");
        await page.GetByText("they come on").First.WaitForAsync();
        await admin.RemovePartnerAsync("Nightline", Ct);
    }
}
