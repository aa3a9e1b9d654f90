using Microsoft.Playwright;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Console.Tests;

/// <summary>On a phone, on the days that do not go by the book.</summary>
[Collection(OneBrowser.Name)]
public sealed class OffThePathTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static Task PressAsync(IPage page, string name) =>
        page.GetByRole(AriaRole.Button, new() { Name = name, Exact = true }).First.ClickAsync();

    private static Task SeesAsync(IPage page, string text) => page.GetByText(text).First.WaitForAsync();

    /// <summary>The step to do now; what comes next stands below it in grey.</summary>
    private static Task StandsAtAsync(IPage page, string says) => page.Locator("#say").GetByText(says).WaitForAsync();

    /// <summary>Looked at again and again: whoever only waits for the next change misses one that came a moment before.</summary>
    private static Task IsAtAsync(IPage page, string ends) =>
        Assertions.Expect(page).ToHaveURLAsync(new System.Text.RegularExpressions.Regex(ends));

    [Fact]
    public async Task What_a_lead_answered_stands_at_the_step_that_asked_until_the_run_goes_on()
    {
        var ticket = await use.TypedTicketAsync(until: "strap");
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}/run");
        await StandsAtAsync(page, "Put on the earthing strap");
        await PressAsync(page, "Something is different");
        await PressAsync(page, "Stop and call");
        await page.GetByLabel("What do you see?").FillAsync("The rack has no bare metal.");
        await PressAsync(page, "Call a lead");

        await (await use.AsAsync("lioth")).WriteAsync(ticket, new HelpAnswered(true, "Clip it to the door's hinge."), Ct);

        var answer = page.GetByRole(AriaRole.Region, new() { Name = "The lead's answer" });
        await answer.GetByText("Clip it to the door's hinge.").WaitForAsync();
        await answer.GetByText("lioth: go on.").WaitForAsync();
        await PressAsync(page, "Done");
        await answer.WaitForAsync(new() { State = WaitForSelectorState.Detached });
    }

    [Fact]
    public async Task What_a_dispatcher_writes_down_of_a_customer_stands_on_the_engineers_phone()
    {
        var ticket = await use.TypedTicketAsync(until: "strap");
        var owner = (await (await use.AsAsync("ilka")).TicketAsync(ticket, Ct)).Report.Customer;
        var desk = await use.PageAsync("dorrik");
        await desk.GotoAsync("/customers");
        await desk.GetByLabel("A customer by any part of its name").FillAsync(owner[..6]);
        await desk.GetByRole(AriaRole.Link, new() { Name = owner, Exact = true }).ClickAsync();
        await PressAsync(desk, "Change what is known");
        var lioth = await use.AsAsync("lioth");
        var known = await lioth.CustomerAsync(owner, Ct);
        await lioth.PutCustomerAsync(known.Customer with { Spares = "One in the porter's safe." }, known.Version, Ct); // meanwhile
        await PressAsync(desk, "Somebody else as well");
        var rows = desk.GetByRole(AriaRole.Group, new() { Name = "Whom to ask there" });
        await rows.GetByRole(AriaRole.Textbox, new() { NameRegex = new("^Name ") }).Last.FillAsync("Ansa Hale");
        await rows.GetByRole(AriaRole.Textbox, new() { NameRegex = new("^How reached ") }).Last.FillAsync("desk 12");
        await desk.GetByLabel("Somebody there within, hours").FillAsync("soon");
        await PressAsync(desk, "That is so");
        await SeesAsync(desk, "A promise of an engineer within 0 hours is none; 1 to 8760 are taken.");
        await desk.GetByLabel("Somebody there within, hours").FillAsync("");
        await PressAsync(desk, "That is so");
        await SeesAsync(desk, $"{owner} was changed by somebody else");
        await SeesAsync(desk, "One in the porter's safe."); // what it is by now, beside all that was typed
        await PressAsync(desk, "That is so");
        await SeesAsync(desk, "Ansa Hale: desk 12");
        await SeesAsync(desk, "One in the porter's safe.");
        await PressAsync(desk, "Change what is known");
        await desk.GetByLabel("Pictures go after a ticket has ended, months").FillAsync("600");
        await PressAsync(desk, "That is so");
        await SeesAsync(desk, "go 600 months after a ticket ends, from 20");

        var phone = await use.PageAsync(phone: true);
        await phone.GotoAsync($"/tickets/{ticket}");
        await SeesAsync(phone, "Ansa Hale: desk 12");
        await phone.GotoAsync($"/customers/{Uri.EscapeDataString(owner)}");
        await SeesAsync(phone, "Ansa Hale: desk 12");
        (await phone.GetByRole(AriaRole.Button, new() { Name = "Change what is known" }).CountAsync()).ShouldBe(0); // an engineer's phone shows it
    }

    [Fact]
    public async Task A_part_that_does_not_fit_is_given_up_on_the_phone_and_stores_are_asked_for_another()
    {
        var ticket = await use.TypedTicketAsync(until: "carrier");
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}/run");
        await StandsAtAsync(page, "Move the carrier to the new drive");

        await PressAsync(page, "Something is different");
        await PressAsync(page, "I cannot, or it is different");
        await StandsAtAsync(page, "What is wrong with");
        await page.GetByRole(AriaRole.Button, new() { Name = "Does not fit" }).First.ClickAsync();

        await SeesAsync(page, "was given up (does not fit); stores reserves and issues another.");
        (await (await use.AsAsync("sefa")).TicketAsync(ticket, Ct)).Next.Who.ShouldBe("stores");
    }

    [Fact]
    public async Task A_wrong_drive_goes_straight_back_and_its_bay_is_asked_for()
    {
        var ticket = await use.TypedTicketAsync(until: "serial-out");
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}/run");
        await page.GetByLabel("Scan, or type the serial").FillAsync("CDR12T0003");
        await PressAsync(page, "That is what I read");

        await StandsAtAsync(page, "Wrong drive. Push it straight back");
        await PressAsync(page, "It is back in bay 3");
        await page.GetByText("Wrong drive. Push it straight back").First.WaitForAsync(new() { State = WaitForSelectorState.Detached });

        var view = await (await use.AsAsync("ilka")).TicketAsync(ticket, Ct);
        view.Swap.NearMisses.ShouldHaveSingleItem().Bay.ShouldBe("3");
        view.Swap.WrongOut.ShouldBeNull();
    }

    [Fact]
    public async Task A_run_is_left_for_another_sheet_behind_the_one_door_and_taken_up_again()
    {
        var ticket = await use.TypedTicketAsync(until: "strap");
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}/run");

        await GoOverAsync("Dust in its plug", "A drive that was dropped and is good");
        await GoOverAsync("It has errors after all", "Hot swap in a front-loading appliance, where it was left");

        await StandsAtAsync(page, "Put on the earthing strap");
        var view = await (await use.AsAsync("ilka")).TicketAsync(ticket, Ct);
        (view.Run!.Sheet.Procedure, view.Run.Current!.Id).ShouldBe(("front-hot", "strap"));

        async Task GoOverAsync(string why, string title)
        {
            await PressAsync(page, "Something is different");
            await page.GetByText("Go over to another sheet").ClickAsync();
            await page.GetByLabel("Why; it stands in the record").FillAsync(why);
            await PressAsync(page, title);
            await page.GetByRole(AriaRole.Region, new() { Name = "Something is different" })
                .WaitForAsync(new() { State = WaitForSelectorState.Detached });
        }
    }

    [Fact]
    public async Task The_desk_is_narrowed_in_its_address_and_shows_the_same_on_the_way_back()
    {
        await use.TypedTicketAsync();
        var page = await use.PageAsync("dorrik");
        await page.GotoAsync("/desk");

        await page.GetByLabel("Find", new() { Exact = true }).FillAsync("FSC-0203");
        await IsAtAsync(page, "/desk\\?find=FSC-0203$");
        await page.GetByText(new System.Text.RegularExpressions.Regex("^\\d+ found")).WaitForAsync();
        await page.GetByRole(AriaRole.Listitem).First.GetByRole(AriaRole.Link).First.ClickAsync();
        await IsAtAsync(page, "/tickets/[^/]+$");
        await page.GoBackAsync();

        (await page.GetByLabel("Find", new() { Exact = true }).InputValueAsync()).ShouldBe("FSC-0203");
        await page.GetByLabel("Find", new() { Exact = true }).FillAsync("no such thing");
        await SeesAsync(page, "No open ticket is like that; narrow it less.");
    }

    [Fact]
    public async Task What_was_recorded_by_mistake_is_put_right_in_the_journal_and_stands_there_as_both()
    {
        var ticket = await use.TypedTicketAsync(until: "strap");
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}");
        var arrived = page.GetByRole(AriaRole.Listitem).Filter(new() { HasText = "Arrived on site" }).Last;
        await arrived.GetByRole(AriaRole.Button, new() { Name = "put right" }).ClickAsync();
        await page.GetByRole(AriaRole.Button, new() { Name = "It was not so" }).ClickAsync();
        await page.GetByLabel("Why; the report tells it").FillAsync("I stood before the wrong building.");
        await page.GetByRole(AriaRole.Button, new() { Name = "It was not so" }).Last.ClickAsync();

        await page.GetByText("It was not so.", new() { Exact = false }).First.WaitForAsync();
        await arrived.Locator("s").WaitForAsync();
        (await (await use.AsAsync("ilka")).TicketAsync(ticket, Ct)).SiteVisits.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_picture_that_may_not_be_kept_goes_at_a_leads_word_and_the_ticket_says_so_in_its_place()
    {
        var ticket = await use.TypedTicketAsync(until: "strap");
        await (await use.AsAsync("ilka")).KeepPhotoAsync(ticket, Guid.CreateVersion7(), new MemoryStream(OneDot), null, "The rack", Ct);
        var phone = await use.PageAsync(phone: true);
        await phone.GotoAsync($"/tickets/{ticket}");
        await phone.GetByRole(AriaRole.Img, new() { Name = "The rack, by ilka" }).WaitForAsync();

        var desk = await use.PageAsync("lioth");
        await desk.GotoAsync($"/tickets/{ticket}");
        var taken = desk.GetByRole(AriaRole.Listitem).Filter(new() { HasText = "A picture: The rack" }).Last;
        await taken.GetByRole(AriaRole.Button, new() { Name = "put right" }).ClickAsync();
        await PressAsync(desk, "The picture goes for good");
        await desk.GetByLabel("Why it may not be kept").FillAsync("A face is on it.");
        await desk.GetByRole(AriaRole.Button, new() { Name = "The picture goes for good" }).Last.ClickAsync();

        await SeesAsync(desk, "A picture is kept no more: A face is on it.");
        await SeesAsync(phone, "The rack: kept no more, lioth on ");
        (await phone.GetByRole(AriaRole.Img, new() { Name = "The rack, by ilka" }).CountAsync()).ShouldBe(0);
    }

    // 1 by 1 pixel.
    private static readonly byte[] OneDot = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNk+A8AAQUBAScY42YAAAAASUVORK5CYII="
    );

    [Fact]
    public async Task A_machine_nobody_has_heard_of_is_added_before_it_on_the_phone_and_what_was_said_becomes_a_ticket()
    {
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync("/report");
        await page.GetByLabel("Machine").FillAsync("FSC-9917");
        await page.GetByLabel("What was seen").FillAsync("It beeps, and nobody knows it");
        await PressAsync(page, "Report it");
        await SeesAsync(page, "What you said is kept in the intake list.");
        await page.GetByRole(AriaRole.Link, new() { Name = "Add FSC-9917 as a new machine" }).ClickAsync();

        await page.GetByLabel("Model").SelectOptionAsync("brackmere-b12");
        await page.GetByLabel("Its own serial, on the sticker of the chassis").FillAsync("CH-9917");
        await page.GetByLabel("Site").SelectOptionAsync("another");
        await page.GetByLabel("What the site is called").FillAsync("Old salt mill");
        await page.GetByLabel("Whose it is").SelectOptionAsync("another");
        await page.GetByLabel("What the customer is called").FillAsync("Ferrow Glassworks");
        await page.GetByLabel("Whom to ask there").FillAsync("Ansa Hale");
        await page.GetByLabel("How they are reached").FillAsync("desk 12");
        await page.GetByLabel("Address").FillAsync("2 Kiln Road");
        await page.GetByLabel("Time zone").SelectOptionAsync("Atlantic/Reykjavik");
        await page.GetByLabel("Room, rack and unit").FillAsync("Cellar");
        await PressAsync(page, "Add it");
        await IsAtAsync(page, "/intake$");
        var kept = page.GetByRole(AriaRole.Article).Filter(new() { HasText = "FSC-9917" }).First;
        await kept.GetByRole(AriaRole.Button, new() { Name = "Make it a ticket" }).ClickAsync();

        await kept.WaitForAsync(new() { State = WaitForSelectorState.Detached });
        var found = await (await use.AsAsync("ilka")).TicketsAsync(new(Ended: false, Asset: "FSC-9917"), Ct);
        var ticket = found.Tickets.ShouldHaveSingleItem();
        ticket.Customer.ShouldBe("Ferrow Glassworks");
        await page.GotoAsync($"/tickets/{ticket.Number}");
        await SeesAsync(page, "Ansa Hale: desk 12");
    }

    [Fact]
    public async Task Whoever_leaves_says_why_and_what_the_next_one_has_to_know()
    {
        var ticket = await use.TypedTicketAsync(until: "strap");
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}");
        await PressAsync(page, "Leave the site");
        await page.GetByLabel("Why you leave").SelectOptionAsync("no-access");
        await page.GetByLabel("What the next one has to know").FillAsync("The caretaker has the key.");
        await page.GetByRole(AriaRole.Button, new() { Name = "Leave the site" }).Last.ClickAsync();

        await SeesAsync(page, "The last one ended: no access. The caretaker has the key.");
    }
}
