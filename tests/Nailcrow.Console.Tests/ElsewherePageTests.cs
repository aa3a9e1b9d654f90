using Microsoft.Playwright;
using Nailcrow.Running;

namespace Nailcrow.Console.Tests;

/// <summary>Coming in by the firm's provider of sign-ins, in a browser with all that it keeps to itself between sites.</summary>
[Collection(OneBrowser.Name)]
public sealed class ElsewherePageTests(ConsoleInUse use)
{
    [Fact]
    public async Task One_comes_in_by_it_on_the_page_one_was_on_and_may_be_shut_out_again()
    {
        use.Provider.Who = new("p-1", "thrift", "Thrift Marsh", null, "tide-crew");
        var page = await use.PageAsync(null);
        await page.GotoAsync("/you");

        await page.GetByRole(AriaRole.Link, new() { Name = "Sign in with Fenwright sign-in" }).ClickAsync();

        await page.GetByText("Signed in as thrift: engineer").WaitForAsync();
        new Uri(page.Url).AbsolutePath.ShouldBe("/you");
        var provider = page.GetByRole(AriaRole.Form, new() { Name = "Provider of sign-ins" });
        await provider.GetByText("You have no password here").WaitForAsync();
        (await page.GetByRole(AriaRole.Form, new() { Name = "Your password" }).CountAsync()).ShouldBe(0);

        var admin = await use.PageAsync("admin");
        await admin.GotoAsync("/people/thrift");
        await admin.GetByText("Ended, nothing lets them in until they are given a password.").WaitForAsync();
        await admin.GetByRole(AriaRole.Button, new() { Name = "No longer by it" }).ClickAsync();
        await page.GetByLabel("Name").WaitForAsync(); // the sign-in is over, and the door stands over the page
    }

    [Fact]
    public async Task Somebody_who_has_a_password_says_once_whom_it_means_and_ends_it()
    {
        use.Provider.Who = new("p-2", "tamsel-there", "Tamsel", null, "tide-crew");
        var page = await use.PageAsync("tamsel");
        await page.GotoAsync("/you");
        var provider = page.GetByRole(AriaRole.Form, new() { Name = "Provider of sign-ins" });

        await provider.GetByLabel("Your password, once more").FillAsync(RunningService.Password);
        await provider.GetByRole(AriaRole.Button, new() { Name = "Come in with Fenwright sign-in" }).ClickAsync();
        await page.GetByText("Tamsel (tamsel-there)").WaitForAsync();
        await page.GetByRole(AriaRole.Button, new() { Name = "Yes, both are me" }).ClickAsync();
        await provider.GetByText("comes in here as you, with the roles it says.").WaitForAsync();
        await provider.GetByLabel("Your password, once more").FillAsync(RunningService.Password);
        await provider.GetByRole(AriaRole.Button, new() { Name = "No longer by it" }).ClickAsync();

        await provider.GetByText("Say once whom it means by you").WaitForAsync();
    }

    [Fact]
    public async Task Who_is_not_let_in_reads_why_and_finds_the_way_back()
    {
        use.Provider.Who = null;
        var page = await use.PageAsync(null);

        await page.GetByRole(AriaRole.Link, new() { Name = "Sign in with Fenwright sign-in" }).ClickAsync();

        await page.GetByText("Fenwright sign-in did not let you in, or you said no there.").WaitForAsync();
        await page.GetByRole(AriaRole.Link, new() { Name = "Back to the door" }).ClickAsync();
        await page.GetByLabel("Name").WaitForAsync();
    }
}
