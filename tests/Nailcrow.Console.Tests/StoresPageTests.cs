using Microsoft.Playwright;
using Nailcrow.Client;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Console.Tests;

/// <summary>Stores' desk by scanner and keyboard alone, at a desk and on a phone.</summary>
[Collection(OneBrowser.Name)]
public sealed class StoresPageTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static readonly Holder Shelf = new(HolderKind.Depot, "Loft", "B2");

    private async Task<NailcrowClient> WithPartAsync(string serial)
    {
        var sefa = await use.Service.SignInAsync("sefa");
        await sefa.ReceiveAsync(new(Guid.CreateVersion7(), serial, Shelf, "Cindral C12T", 14_000_000_000_000), Ct);
        return sefa;
    }

    private static async Task ScanAsync(IPage page, params string[] serials)
    {
        // As a scanner does: faster than any answer, Enter after each.
        await page.GetByLabel("Serial", new() { Exact = true }).FocusAsync();
        foreach (var serial in serials)
        {
            await page.Keyboard.TypeAsync(serial);
            await page.Keyboard.PressAsync("Enter");
        }
    }

    [Theory, InlineData(false), InlineData(true)]
    public async Task Boxes_are_scanned_one_after_the_other_and_what_is_new_is_asked_for_its_label(bool phone)
    {
        var (known, stranger) = (phone ? "SCANPHONE1A" : "SCANDESK01A", phone ? "QPHONE44ZZ" : "QDESKK44ZZ");
        var sefa = await WithPartAsync(known);
        var page = await use.PageAsync("sefa", phone);
        await page.GotoAsync("/stores");
        await page.GetByLabel("Depot").FillAsync("Loft");
        await page.GetByLabel("Shelf").FillAsync("C7");

        await ScanAsync(page, known, stranger);

        await page.GetByText($"{known} went from depot Loft, shelf B2 to depot Loft, shelf C7.").WaitForAsync();
        var form = page.GetByRole(AriaRole.Form, new() { Name = $"{stranger} is new here" });
        await form.GetByLabel("Model on its label").FillAsync("Cindral C12T");
        await form.GetByLabel("Size, TB").FillAsync("14");
        await page.Keyboard.PressAsync("Enter");
        await page.GetByText($"{stranger} is new here: Cindral C12T").WaitForAsync();
        (await sefa.PartAsync(stranger, Ct)).Now!.Holder.ShouldBe(Shelf with { Shelf = "C7" });
    }

    [Fact]
    public async Task A_depot_that_reads_nearly_like_another_is_the_one_that_is_pressed()
    {
        var sefa = await WithPartAsync("WHICHDEPOT1");
        await WithPartAsync("WHICHDEPOT2");
        var page = await use.PageAsync("sefa", phone: true);
        await page.GotoAsync("/stores");
        await page.GetByLabel("Depot").FillAsync("Lofft");
        await page.GetByLabel("Shelf").FillAsync("C7");
        var scanned = page.GetByRole(AriaRole.List, new() { Name = "Scanned" });

        await ScanAsync(page, "WHICHDEPOT1");
        await scanned.GetByText("Nothing lies in a depot 'Lofft', and there is Loft. Say which it is.").WaitForAsync();
        await scanned.GetByRole(AriaRole.Button, new() { Name = "Into Loft" }).ClickAsync();
        await scanned.GetByText("WHICHDEPOT1 went from depot Loft, shelf B2 to depot Loft, shelf C7.").WaitForAsync();
        await ScanAsync(page, "WHICHDEPOT2");
        await scanned.GetByRole(AriaRole.Button, new() { Name = "Lofft is a new depot" }).ClickAsync();
        await scanned.GetByText("WHICHDEPOT2 went from depot Loft, shelf B2 to depot Lofft, shelf C7.").WaitForAsync();

        (await sefa.PartAsync("WHICHDEPOT1", Ct)).Now!.Holder.ShouldBe(Shelf with { Shelf = "C7" });
    }

    [Fact]
    public async Task The_phones_camera_reads_a_label_into_stores()
    {
        var page = await use.PageAsync("sefa", phone: true);
        await page.GotoAsync("/stores");
        await page.GetByLabel("Depot").FillAsync("Loft");

        await page.GetByRole(AriaRole.Button, new() { Name = "Scan with the camera" }).ClickAsync();

        // What the camera sees is the label of a drive that may be known or not: its serial is in the answer either way.
        await page.GetByRole(AriaRole.List, new() { Name = "Scanned" }).GetByText(ConsoleInUse.FailedDrive).First.WaitForAsync();
    }

    [Fact]
    public async Task A_scan_without_an_answer_is_still_there_when_the_page_comes_back_and_is_taken_once()
    {
        var sefa = await WithPartAsync("LEFTOPEN1A");
        var page = await use.PageAsync("sefa");
        await page.GotoAsync("/stores");
        await page.GetByLabel("Depot").FillAsync("Loft");
        await page.GetByLabel("Shelf").FillAsync("E5");
        await page.RouteAsync(
            "**/api/stores/receipts",
            async route =>
            {
                await route.FetchAsync(); // it arrives, and the answer is lost
                await route.AbortAsync();
            }
        );
        await ScanAsync(page, "LEFTOPEN1A");
        await page.GetByText("No answer.").WaitForAsync();

        await page.UnrouteAsync("**/api/stores/receipts");
        await page.ReloadAsync();
        await page.GetByRole(AriaRole.Button, new() { Name = "Send again" }).ClickAsync();

        await page.GetByText("LEFTOPEN1A is in depot Loft, shelf E5 already.").WaitForAsync();
        (await sefa.PartAsync("LEFTOPEN1A", Ct)).Movements.Count.ShouldBe(2);
        await page.ReloadAsync();
        await page.GetByLabel("Serial", new() { Exact = true }).WaitForAsync();
        (await page.GetByText("LEFTOPEN1A").CountAsync()).ShouldBe(0); // it is done, and nothing of it is left
    }

    [Fact]
    public async Task What_a_ticket_waits_for_is_picked_handed_out_and_taken_back_by_its_serial()
    {
        var sefa = await WithPartAsync("PICKME001A");
        var ticket = await use.TypedTicketAsync();
        var dorrik = await use.Service.SignInAsync("dorrik");
        await dorrik.WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);
        await sefa.WriteAsync(ticket, new PartReserved("PICKME001A", "Cindral C12T", 14_000_000_000_000, "Loft"), Ct);
        var page = await use.PageAsync("sefa");
        await page.GotoAsync("/stores");
        await page.GetByRole(AriaRole.Region, new() { Name = "Pick" }).GetByText("PICKME001A").WaitForAsync();

        await page.GetByLabel("What you do").SelectOptionAsync("issue");
        await page.GetByLabel("To", new() { Exact = true }).SelectOptionAsync("ilka");
        await ScanAsync(page, "pickme001a");

        await page.GetByText($"PICKME001A is with ilka, for T-{ticket}.").WaitForAsync();
        (await sefa.TicketAsync(ticket, Ct)).Part!.IssuedTo.ShouldBe("ilka");
    }

    [Fact]
    public async Task A_shelf_is_counted_and_nothing_changes_before_somebody_says_so()
    {
        var sefa = await WithPartAsync("COUNTED01A");
        var page = await use.PageAsync("sefa");
        await page.GotoAsync("/stores");
        await page.GetByLabel("What you do").SelectOptionAsync("count");
        await page.GetByLabel("Depot").FillAsync("Loft");
        await page.GetByLabel("Shelf").FillAsync("K9");
        await page.GetByLabel("Serials, one after the other").FillAsync("COUNTED01A\nNOBODY11ZQ\n");

        await page.GetByRole(AriaRole.Button, new() { Name = "Compare with the record" }).ClickAsync();
        await page.GetByText("COUNTED01A is here; by the record it is in depot Loft, shelf B2.").WaitForAsync();
        (await sefa.PartAsync("COUNTED01A", Ct)).Now!.Holder.Shelf.ShouldBe("B2");
        await page.GetByRole(AriaRole.Button, new() { Name = "Write down that it is here" }).ClickAsync();

        await page.GetByText("COUNTED01A went from depot Loft, shelf B2 to depot Loft, shelf K9.").WaitForAsync();
        (await sefa.PartAsync("COUNTED01A", Ct)).Now!.Holder.Shelf.ShouldBe("K9");
    }

    [Fact]
    public async Task An_engineer_sees_what_lies_where_and_has_no_field_to_scan_into()
    {
        await WithPartAsync("SEENONLY1A");
        var page = await use.PageAsync("ilka");
        await page.GotoAsync("/stores");

        await page.GetByRole(AriaRole.Region, new() { Name = "On the shelves" }).GetByText("Loft").First.WaitForAsync();
        (await page.GetByLabel("Serial", new() { Exact = true }).CountAsync()).ShouldBe(0);
        await page.GotoAsync("/drives/SEENONLY1A");
        await page.GetByText("Came to depot Loft, shelf B2.").WaitForAsync();
    }

    [Fact]
    public async Task A_drive_that_stays_with_the_customer_is_handed_over_on_its_page()
    {
        var ticket = await use.TypedTicketAsync();
        var ilka = await use.Service.SignInAsync("ilka");
        await ilka.WriteAsync(ticket, new Core.Swaps.Drives.DrivePulled("5", "CDR12T0005"), Ct);
        var page = await use.PageAsync();
        await page.GotoAsync($"/tickets/{ticket}/return");
        var otherwise = page.GetByRole(AriaRole.Region, new() { Name = "Otherwise with CDR12T0005" });

        await otherwise.GetByRole(AriaRole.Button, new() { Name = "The customer keeps it" }).ClickAsync();
        await otherwise.GetByLabel("Who there takes it").FillAsync("R. Alder");
        await otherwise.Locator("form").GetByRole(AriaRole.Button, new() { Name = "The customer keeps it" }).ClickAsync();

        await page.GetByRole(AriaRole.Region, new() { Name = "Who holds what" }).GetByText("may keep it").WaitForAsync();
        (await ilka.TicketAsync(ticket, Ct)).Held.Single(h => h.Serial == "CDR12T0005").Holder.Kind.ShouldBe(HolderKind.Customer);
        var picture = new FilePayload
        {
            Name = "label.png",
            MimeType = "image/png",
            Buffer = await page.ScreenshotAsync(),
        };
        await page.GetByLabel("A picture of CDR12T0005").SetInputFilesAsync(picture);
        await page.GetByAltText("CDR12T0005, by ilka").WaitForAsync();
        (await ilka.TicketAsync(ticket, Ct)).Photos.Single().Of.ShouldBe("CDR12T0005");
    }

    [Theory, InlineData(false), InlineData(true)]
    public async Task What_came_back_stands_in_its_list_until_stores_has_looked_at_it(bool phone)
    {
        var serial = phone ? "LOOKPHONE1" : "LOOKDESK01";
        var ticket = await use.TypedTicketAsync();
        var (ilka, sefa) = (await use.Service.SignInAsync("ilka"), await use.Service.SignInAsync("sefa"));
        await (await use.Service.SignInAsync("dorrik")).WriteAsync(ticket, new Core.Tickets.Planning.EngineerAssigned("ilka"), Ct);
        await sefa.WriteAsync(ticket, new PartReserved(serial, "Cindral C12T", 14_000_000_000_000, "Loft"), Ct);
        await sefa.WriteAsync(ticket, new PartIssued(serial, "ilka"), Ct);
        await ilka.WriteAsync(ticket, new ReturnOpened(serial, ReturnReason.BackUnopened, new(HolderKind.Depot, "Loft")), Ct);
        await ilka.WriteAsync(ticket, new ReturnSent(serial, "Overfell Parcels"), Ct);
        await sefa.WriteAsync(ticket, new ReturnArrived(serial, serial), Ct);
        var page = await use.PageAsync("sefa", phone);
        await page.GotoAsync("/stores");
        var list = page.GetByRole(AriaRole.Region, new() { Name = "To look at" });

        await list.GetByRole(AriaRole.Listitem).Filter(new() { HasText = serial }).GetByRole(AriaRole.Link).Last.ClickAsync();
        var drive = page.GetByRole(AriaRole.Region, new() { Name = $"Look at {serial}" });
        await drive.GetByRole(AriaRole.Button, new() { Name = "It is not as announced" }).ClickAsync();
        await drive.GetByLabel("What you found").SelectOptionAsync("incomplete");
        await drive.GetByLabel("What you saw").FillAsync("Two screws are missing");
        await drive.Locator("form").GetByRole(AriaRole.Button, new() { Name = "It is not as announced" }).ClickAsync();

        await page.GetByText("incomplete. Two screws are missing").First.WaitForAsync();
        (await ilka.TicketAsync(ticket, Ct)).Returns.Single().InspectedBy.ShouldBe("sefa");
        await page.GotoAsync("/stores");
        await page.GetByRole(AriaRole.Region, new() { Name = "On the shelves" }).WaitForAsync();
        (await list.GetByText(serial).CountAsync()).ShouldBe(0);
    }

    [Fact]
    public async Task What_came_to_be_destroyed_lies_apart_with_its_ticket_until_it_is()
    {
        const string Serial = "SHRED0001A";
        var ticket = await use.TypedTicketAsync();
        var (ilka, sefa) = (await use.Service.SignInAsync("ilka"), await use.Service.SignInAsync("sefa"));
        await sefa.WriteAsync(ticket, new PartReserved(Serial, "Cindral C12T", 14_000_000_000_000, "Loft"), Ct);
        await sefa.WriteAsync(ticket, new PartIssued(Serial, "ilka"), Ct);
        await ilka.WriteAsync(ticket, new PartGivenUp(Serial, NoReplacement.CarriesOldData), Ct);
        await ilka.WriteAsync(ticket, new ReturnOpened(Serial, ReturnReason.ToBeDestroyed, new(HolderKind.Depot, "Loft")), Ct);
        await ilka.WriteAsync(ticket, new ReturnSent(Serial, "Overfell Parcels"), Ct);
        await sefa.WriteAsync(ticket, new ReturnArrived(Serial, Serial), Ct);
        var page = await use.PageAsync("sefa", phone: false);
        await page.GotoAsync("/stores");
        var apart = page.GetByRole(AriaRole.Region, new() { Name = "Set apart" });
        var line = apart.GetByRole(AriaRole.Listitem).Filter(new() { HasText = Serial });
        await line.GetByText("to be destroyed").WaitForAsync();

        await sefa.WriteAsync(ticket, new DriveDestroyed(Serial, "Shredded to 6 mm", "Lioth Arnesk"), Ct);

        await page.GotoAsync("/stores");
        await page.GetByRole(AriaRole.Region, new() { Name = "On the shelves" }).WaitForAsync();
        (await apart.GetByText(Serial).CountAsync()).ShouldBe(0);
    }
}
