using Microsoft.Playwright;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;

namespace Nailcrow.Console.Tests;

/// <summary>All papers of a ticket on one page.</summary>
[Collection(OtherBrowser.Name)]
public sealed class DocumentsPageTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Theory, InlineData(false), InlineData(true)]
    public async Task What_there_is_is_read_from_here_and_what_is_not_yet_says_why_and_comes_by_itself(bool phone)
    {
        var part = phone ? "DOCPHONE1A" : "DOCDESK01A";
        var ticket = await use.TypedTicketAsync();
        var (dorrik, sefa, ilka) = (
            await use.Service.SignInAsync("dorrik"),
            await use.Service.SignInAsync("sefa"),
            await use.Service.SignInAsync("ilka")
        );
        await dorrik.WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);
        var page = await use.PageAsync("ilka", phone);
        await page.GotoAsync($"/tickets/{ticket}");
        await page.GetByRole(AriaRole.Link, new() { Name = "all other papers" }).ClickAsync();
        var notYet = page.GetByRole(AriaRole.Region, new() { Name = "Not yet" });
        await notYet.GetByText("No drive or part has moved on").WaitForAsync();

        await sefa.WriteAsync(ticket, new PartReserved(part, "Cindral C12T", 14_000_000_000_000, "Loft"), Ct);
        await sefa.WriteAsync(ticket, new PartIssued(part, "ilka"), Ct);
        await ilka.WriteAsync(ticket, new ReturnOpened(part, ReturnReason.BackToStores, new(HolderKind.Depot, "Loft")), Ct);

        var there = page.GetByRole(AriaRole.Region, new() { Name = "To read and to print" });
        var label = there.GetByRole(AriaRole.Link, new() { Name = $"Label for the box with {part}" });
        await label.WaitForAsync();
        var address = await label.GetAttributeAsync("href");
        var answer = await page.APIRequest.GetAsync($"{use.Service.Address}{address!.TrimStart('/')}");
        (answer.Status, answer.Headers["content-type"]).ShouldBe((200, "application/pdf"));
        await there.GetByRole(AriaRole.Link, new() { Name = "Delivery note" }).WaitForAsync();
    }

    [Theory, InlineData(false), InlineData(true)]
    public async Task A_paper_is_sent_from_here_and_what_came_of_it_stands_here(bool phone)
    {
        await using var post = await RunningStandIn.MailAsync();
        var admin = await use.Service.SignInAsync("admin");
        await admin.PutPartnerAsync("Post", new(PartnerKind.Mail, $"{post.TakesMailAt}care@fenwright.example"), Ct);
        var ticket = await use.TypedTicketAsync();
        var page = await use.PageAsync("ilka", phone);
        await page.GotoAsync($"/tickets/{ticket}/documents");
        var mail = page.GetByRole(AriaRole.Region, new() { Name = "By mail" });

        await mail.GetByLabel("To", new() { Exact = true }).FillAsync("the archivist");
        await mail.GetByRole(AriaRole.Button, new() { Name = "Send by mail" }).ClickAsync();
        await mail.GetByText("is no address of a mailbox").First.WaitForAsync();
        await mail.GetByLabel("To", new() { Exact = true }).FillAsync("archivist@corrin.example");
        await mail.GetByLabel("What you say with it").FillAsync("As promised.");
        await mail.GetByRole(AriaRole.Button, new() { Name = "Send by mail" }).ClickAsync();

        var sent = page.GetByRole(AriaRole.Region, new() { Name = "What went out by mail" });
        await sent.GetByText("archivist@corrin.example was sent the service report on").WaitForAsync();
        (await post.LookAsync()).ShouldContain("As promised.");
        await admin.RemovePartnerAsync("Post", Ct);
    }
}
