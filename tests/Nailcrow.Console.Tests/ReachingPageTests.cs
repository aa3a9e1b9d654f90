using Microsoft.Playwright;
using Nailcrow.Running;

namespace Nailcrow.Console.Tests;

/// <summary>A machine that asks who one is and shows a certificate it signed itself, in the browser.</summary>
[Collection(OneBrowser.Name)]
public sealed class ReachingPageTests(ConsoleInUse use)
{
    private const string Asset = "FSC-0108";

    [Theory, InlineData(false), InlineData(true)]
    public async Task A_machine_is_reached_by_whoever_may_and_only_tried_by_everybody_else(bool phone)
    {
        await using var machine = await RunningStandIn.GuardedAsync(seed: 8);
        var lead = await use.PageAsync("lioth", phone);
        await lead.GotoAsync($"/machines/{Asset}");
        await lead.GetByRole(AriaRole.Button, new() { Name = "Put right what is known of it" }).ClickAsync();
        await lead.GetByLabel("Its management address").FillAsync(machine.TlsAddress.ToString().TrimEnd('/'));
        await lead.GetByRole(AriaRole.Button, new() { Name = "That is so" }).ClickAsync();
        var reached = lead.GetByRole(AriaRole.Region, new() { Name = "How it is reached" });
        await reached.GetByText(machine.TlsAddress.ToString().TrimEnd('/')).First.WaitForAsync();

        await reached.GetByRole(AriaRole.Button, new() { Name = "Try whether it can be read" }).ClickAsync();
        await reached.GetByText("✕ It cannot be read.").WaitForAsync();
        var pairs = string.Join(':', machine.Certificate.Chunk(2).Select(p => new string(p)));
        await reached.GetByText(pairs).First.WaitForAsync();
        await reached.GetByRole(AriaRole.Button, new() { Name = "Yes, that is this machine's" }).ClickAsync();
        await reached.GetByText("lioth said yes on").WaitForAsync();

        await reached.GetByRole(AriaRole.Button, new() { NameRegex = new("Give (a|another) sign-in") }).ClickAsync();
        var form = reached.GetByRole(AriaRole.Form, new() { Name = "Sign-in at the machine" });
        await form.GetByLabel("Whom the machine knows").FillAsync("service");
        await form.GetByRole(AriaRole.Button, new() { Name = "Sign in by that" }).ClickAsync();
        await form.GetByText("Give either the secret, or the file it is in.").WaitForAsync();
        await form.GetByRole(AriaRole.Textbox, new() { Name = "Its secret" }).FillAsync(RunningStandIn.MachineSecret);
        await form.GetByRole(AriaRole.Button, new() { Name = "Sign in by that" }).ClickAsync();
        await reached.GetByText("service, a session, begun once; secret kept encrypted, given by lioth").WaitForAsync();

        var engineer = await use.PageAsync("ilka", phone);
        await engineer.GotoAsync($"/machines/{Asset}");
        var theirs = engineer.GetByRole(AriaRole.Region, new() { Name = "How it is reached" });
        await theirs.GetByRole(AriaRole.Button, new() { Name = "Try whether it can be read" }).ClickAsync();
        await theirs.GetByText("✓ It can be read.").WaitForAsync();
        (await theirs.GetByText("sign-in", new() { Exact = false }).CountAsync()).ShouldBe(0);
        (await engineer.ContentAsync()).ShouldNotContain(RunningStandIn.MachineSecret);
    }
}
