using Microsoft.Playwright;

namespace Nailcrow.Console.Tests;

/// <summary>Two people have the same step before them.</summary>
[Collection(OneBrowser.Name)]
public sealed class TwoPeopleTests(ConsoleInUse use)
{
    private const string FirstStep = "strap";

    [Fact]
    public async Task Whoever_comes_second_to_a_step_is_told_who_was_first_and_with_which_answer()
    {
        var ticket = await use.TypedTicketAsync(FirstStep);
        var (engineer, lead) = (await use.PageAsync(phone: true), await use.PageAsync("lioth"));
        foreach (var page in new[] { engineer, lead })
        {
            await page.GotoAsync($"/tickets/T-{ticket}/run");
            await page.GetByRole(AriaRole.Button, new() { Name = "Done", Exact = true }).WaitForAsync();
        }

        await engineer.GetByRole(AriaRole.Button, new() { Name = "Done", Exact = true }).ClickAsync();

        await lead.GetByText($"ilka answered 'done' at {FirstStep}. The run went on; this is the next step.").WaitForAsync();
        (await engineer.GetByText("The run went on; this is the next step.").CountAsync()).ShouldBe(0);
    }

    [Fact]
    public async Task Whoever_only_looks_on_has_no_button_that_answers_a_step()
    {
        var ticket = await use.TypedTicketAsync(FirstStep);
        var page = await use.PageAsync("sefa");

        await page.GotoAsync($"/tickets/T-{ticket}/run");
        await page.GetByText($"T-{ticket} is with ilka").First.WaitForAsync();

        (await page.GetByRole(AriaRole.Button, new() { Name = "Done", Exact = true }).CountAsync()).ShouldBe(0);
    }

    [Fact]
    public async Task After_a_step_the_next_one_has_the_focus_for_who_cannot_see_it()
    {
        var ticket = await use.TypedTicketAsync(FirstStep);
        var page = await use.PageAsync();
        await page.GotoAsync($"/tickets/T-{ticket}/run");

        await page.GetByRole(AriaRole.Button, new() { Name = "Done", Exact = true }).ClickAsync();
        await page.WaitForFunctionAsync("() => document.activeElement?.matches('section.panel.now, input')");
    }
}
