using Microsoft.Playwright;
using Nailcrow.Core.Returns.Supplies;

namespace Nailcrow.Console.Tests;

/// <summary>What has no serial, counted by hand at a desk and on a phone.</summary>
[Collection(OtherBrowser.Name)]
public sealed class SuppliesPageTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static async Task WriteAsync(IPage page, string what, string name, string count, string? from = null, string? to = null)
    {
        await page.GetByLabel("What happened").SelectOptionAsync(new SelectOptionValue { Label = what });
        await page.GetByLabel("What", new() { Exact = true }).FillAsync(name);
        await page.GetByLabel("How many").FillAsync(count);
        if (from is not null)
            await page.GetByLabel(what == "Counted" ? "Where" : "From", new() { Exact = true }).FillAsync(from);
        if (to is not null)
            await page.GetByLabel("To", new() { Exact = true }).FillAsync(to);
        await page.Keyboard.PressAsync("Enter");
    }

    [Theory, InlineData(false), InlineData(true)]
    public async Task They_come_go_into_a_van_and_are_counted_and_the_line_tells_it(bool phone)
    {
        var name = phone ? "phone brackets" : "desk brackets";
        var page = await use.PageAsync("sefa", phone);
        await page.GotoAsync("/stores");
        await page.GetByRole(AriaRole.Link, new() { Name = "What is counted" }).ClickAsync();

        await WriteAsync(page, "Came in", name, "12", to: "Loft");
        await page.GetByText($"{name}: 12 came to depot Loft; 12 are there.").WaitForAsync();
        await WriteAsync(page, "Put elsewhere", name, "5", "Loft", "van of ilka");
        await page.GetByText($"{name}: 5 went from depot Loft to the van of ilka.").WaitForAsync();
        await WriteAsync(page, "Put elsewhere", name, "50", "Loft", "van of ilka");
        await page.GetByText($"{name}: by the record 7 are in depot Loft; 50 cannot leave it.").WaitForAsync();
        await WriteAsync(page, "Counted", name, "6", "Loft");
        await page.GetByText($"{name}: 6 in depot Loft, 1 fewer than recorded.").WaitForAsync();

        var list = page.GetByRole(AriaRole.Region, new() { Name = "Supplies, by name" });
        var row = list.Locator(".part-line").Filter(new() { HasText = name });
        (await row.InnerTextAsync()).ShouldContain($"{name}: 11 (6 in Loft, 5 in the van of ilka)");
        await row.GetByRole(AriaRole.Link, new() { Name = "what became of it" }).ClickAsync();
        await row.GetByText("Counted in depot Loft: 6, 1 fewer than recorded.").WaitForAsync();
        await page.ReloadAsync();
        await row.GetByText("12 came to depot Loft.").WaitForAsync();
    }

    [Fact]
    public async Task A_name_nearly_like_a_known_one_is_asked_about_with_both_ways_out()
    {
        var page = await use.PageAsync("sefa");
        await page.GotoAsync("/stores/supplies");
        await WriteAsync(page, "Came in", "K3 screws", "10", to: "Loft");
        await page.GetByText("K3 screws: 10 came to depot Loft").WaitForAsync();

        await WriteAsync(page, "Came in", "K4 screws", "10", to: "Loft");
        await page.GetByRole(AriaRole.Button, new() { Name = "It is K3 screws" }).WaitForAsync();
        await page.GetByRole(AriaRole.Button, new() { Name = "K4 screws is new" }).ClickAsync();

        await page.GetByText("K4 screws: 10 came to depot Loft; 10 are there.").WaitForAsync();
    }

    [Fact]
    public async Task An_engineer_says_on_the_ticket_what_was_used_and_counts_their_own_van()
    {
        var sefa = await use.Service.SignInAsync("sefa");
        await sefa.CountSuppliesAsync(new(Guid.CreateVersion7(), "hinge pins", SupplyWay.Came, 9, To: "van of ilka"), Ct);
        var ticket = await use.TypedTicketAsync();
        var page = await use.PageAsync("ilka");
        await page.GotoAsync($"/tickets/{ticket}/return");

        await page.GetByRole(AriaRole.Button, new() { Name = "Something was used up" }).First.ClickAsync();
        var what = page.GetByLabel("What: drive carrier, screws, a cable");
        await page.Locator($"datalist[id='{await what.GetAttributeAsync("list")}'] option[value='hinge pins']")
            .WaitForAsync(new() { State = WaitForSelectorState.Attached });
        await what.FillAsync("hinge pins");
        await page.GetByLabel("How many").FillAsync("2");
        await page.Keyboard.PressAsync("Enter");

        await page.GetByText("2 hinge pins, from the van of ilka.").WaitForAsync();
        (await sefa.SupplyAsync("hinge pins", Ct)).Now.Held.ShouldBe(7);
        await page.GotoAsync("/stores/supplies");
        await page.GetByRole(AriaRole.Region, new() { Name = "Supplies, by name" }).WaitForAsync();
        var form = page.GetByRole(AriaRole.Form, new() { Name = "Write down" });
        await form.GetByText("Counted in your van").WaitForAsync();
        (await form.GetByLabel("What happened").CountAsync()).ShouldBe(0);
        await form.GetByLabel("What", new() { Exact = true }).FillAsync("hinge pins");
        await form.GetByLabel("How many are there").FillAsync("6");
        await form.GetByRole(AriaRole.Button, new() { Name = "Write it down" }).ClickAsync();

        await form.GetByRole(AriaRole.Status).WaitForAsync();
        (await sefa.SupplyAsync("hinge pins", Ct)).Now.Held.ShouldBe(6);
    }
}
