using Microsoft.Playwright;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;

namespace Nailcrow.Console.Tests;

[Collection(OneBrowser.Name)]
public sealed class ConsoleTests(ConsoleInUse use)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static Task PressAsync(IPage page, string name) =>
        page.GetByRole(AriaRole.Button, new() { Name = name, Exact = true }).First.ClickAsync();

    /// <summary>The service's own look may open a gate while the finger is on its way: then there is nothing left to press.</summary>
    private static async Task PressUnlessGoneAsync(ILocator button)
    {
        for (var tries = 0; await button.CountAsync() > 0; tries++)
            try
            {
                await button.ClickAsync(new() { Timeout = 5_000 });
                return;
            }
            catch (TimeoutException)
            {
                tries.ShouldBeLessThan(30, "the button is there and cannot be pressed");
            }
    }

    private static Task SeesAsync(IPage page, string text) => page.GetByText(text).First.WaitForAsync();

    /// <summary>The step to do now; what comes next stands below it in grey.</summary>
    private static Task StandsAtAsync(IPage page, string says) => page.Locator("#say").GetByText(says).WaitForAsync();

    [Fact]
    public async Task A_wrong_password_is_said_and_the_right_one_leads_to_the_day()
    {
        var page = await use.PageAsync(person: null);
        await page.GetByLabel("Name").FillAsync("ilka");
        await page.GetByLabel("Password", new() { Exact = true }).FillAsync("wrong-password");
        await PressAsync(page, "Sign in");

        (await page.GetByRole(AriaRole.Alert).TextContentAsync()).ShouldBe("Name and password do not go together.");
    }

    [Fact]
    public async Task One_swap_is_followed_on_a_phone_from_the_report_to_the_closed_ticket()
    {
        await use.Machine.HandAsync("fail/2");
        var ilka = await use.AsAsync("ilka");
        var bad = (await ilka.BaysAsync("FSC-0107", Ct)).Snapshot.BayLabelled("2")?.Serial ?? "";
        var replacement = await use.AtHandAsync();
        var page = await use.PageAsync(phone: true);
        await page.Context.AddInitScriptAsync(CountTaps);

        // The report, and what stores and dispatch do on their own screens.
        await page.GetByRole(AriaRole.Link, new() { Name = "Report a fault" }).ClickAsync();
        await page.GetByLabel("Machine").FillAsync("fsc-0107");
        await page.GetByLabel("What was seen").FillAsync("Amber lamp on bay 2");
        await page.GetByLabel("Serial, if known").FillAsync(bad);
        await PressAsync(page, "Report it");
        // the page changes its address without loading, which waiting for a load may miss
        await page.WaitForFunctionAsync("() => /^\\/tickets\\/\\d+$/.test(location.pathname)");
        var ticket = long.Parse(page.Url.Split('/')[^1], System.Globalization.CultureInfo.InvariantCulture);
        await (await use.AsAsync("dorrik")).WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);
        await PressAsync(page, "Ask the machine for a snapshot");
        await SeesAsync(page, "Margin 1");
        var sefa = await use.AsAsync("sefa");
        await sefa.WriteAsync(ticket, new PartReserved(replacement, "Cindral C8", 8_001_563_222_016, "Stores"), Ct);
        await sefa.WriteAsync(ticket, new PartIssued(replacement, "ilka"), Ct);

        await PressAsync(page, "I have arrived");
        await page.WaitForFunctionAsync("() => location.pathname.endsWith('/run')"); // arriving, starting and going on is one press
        await FollowAsync(page, ticket, bad, replacement);

        await SeesAsync(page, "The run is at its end.");
        await page.GotoAsync($"/tickets/{ticket}/return");
        var exchange = page.Locator("section").Filter(new() { HasText = "back: to its maker" });
        await exchange.GetByLabel("Maker").FillAsync("Pellworth");
        await exchange.GetByLabel("Authorisation number").FillAsync("RX-1");
        await exchange.GetByLabel("Who agreed that the data on it may leave").FillAsync("Archivist");
        await exchange.GetByRole(AriaRole.Button).ClickAsync();
        await page.GetByLabel("Carrier").FillAsync("Overfell Parcels");
        await PressAsync(page, "It is with the carrier");
        await SeesAsync(page, "with Overfell Parcels");
        var stores = await use.PageAsync("sefa");
        await stores.GotoAsync($"/tickets/{ticket}/return");
        await stores.GetByLabel("Serial on the drive in the box").FillAsync(bad);
        await PressAsync(stores, "That is in the box");
        await SeesAsync(stores, "● arrived");

        await page.GotoAsync($"/tickets/{ticket}");
        await page.GetByLabel("Who signs for the customer").FillAsync("Archivist");
        await PressAsync(page, "Signed off");
        await PressAsync(page, "Close the ticket");
        await SeesAsync(page, "Nothing: the ticket is closed.");
        (await ilka.TicketAsync(ticket, Ct)).Stage.ShouldBe(Stage.Closed);
        (await page.EvaluateAsync<int>("() => Number(sessionStorage.getItem('taps'))")).ShouldBeLessThanOrEqualTo(MostTaps);
    }

    private const int MostTaps = 40;

    /// <summary>What a finger does; typing is another matter.</summary>
    private const string CountTaps = """
        document.addEventListener('click', e => {
          if (e.isTrusted && e.detail > 0) sessionStorage.setItem('taps', Number(sessionStorage.getItem('taps')) + 1)
        }, true)
        """;

    /// <summary>Presses what the screen offers, with hands at the machine, until the run is at its end.</summary>
    private async Task FollowAsync(IPage page, long ticket, string bad, string replacement)
    {
        var ilka = await use.AsAsync("ilka");
        for (var steps = 0; steps < 80; steps++)
        {
            var run = (await ilka.TicketAsync(ticket, Ct)).Run;
            if (run?.Current is not { } step)
                return;
            await page.Locator("#say", new() { HasText = step.Say[..Math.Min(step.Say.Length, 30)] }).WaitForAsync();
            if (step.Id == "insert")
                await use.Machine.HandAsync($"insert/2/{replacement}");
            if (step.Id == "start")
                await use.Machine.HandAsync("start/vault/2");
            switch (step.Id)
            {
                case "backup-detail":
                    await page.GetByLabel("Your answer").FillAsync("Nightly, says the archivist");
                    await page.Keyboard.PressAsync("Enter");
                    break;
                case "chassis-serial" or "serial-out" or "serial-in":
                    if (step.Id == "serial-out")
                        await use.Machine.HandAsync("pull/2");
                    // A wedge scanner: types into the field that waits for it, and presses Enter.
                    await page.Keyboard.TypeAsync(
                        step.Id == "chassis-serial" ? "S/N brk12-0007"
                        : step.Id == "serial-out" ? bad
                        : replacement
                    );
                    await page.Keyboard.PressAsync("Enter");
                    break;
                case "start":
                    await page.GetByLabel("Bay", new() { Exact = true }).FillAsync("2");
                    await page.GetByLabel("Serial", new() { Exact = true }).FillAsync(replacement);
                    await page.Keyboard.PressAsync("Enter");
                    break;
                case "joined":
                    await page.GetByRole(AriaRole.Link, new() { Name = "See the rebuild" }).ClickAsync();
                    await SeesAsync(page, "Moving");
                    await page.GetByRole(AriaRole.Img, new() { NameString = "Chart of the rebuild" }).WaitForAsync();
                    await use.Machine.HandAsync("finish/vault");
                    await page.GetByText("Done, seen at").First.WaitForAsync();
                    await page.GoBackAsync();
                    await PressAsync(page, "Go on");
                    break;
                case var _ when step.Kind == Core.Procedures.StepKind.Light:
                    await page.GetByRole(AriaRole.Button, new() { NameString = "for me" }).ClickAsync();
                    break;
                case var _ when step.IsPassed:
                    if (run.Unmet is not null && step.Kind == Core.Procedures.StepKind.Gate)
                        await PressUnlessGoneAsync(page.GetByRole(AriaRole.Button, new() { Name = "Take a snapshot", Exact = true }).First);
                    await PressAsync(page, "Go on"); // waits by itself until the button is no longer shut
                    break;
                default:
                    await PressAsync(page, step.Kind == Core.Procedures.StepKind.Look ? "Yes" : "Done");
                    break;
            }
            await Soon.ComesAsync(() => SeenAsync(ilka, ticket, page), seen => seen.Step != step.Id, Ct);
        }
        throw new TimeoutException("The run never came to its end.");
    }

    /// <summary>The step the run is at, and what the page shows: that is told where it does not go on.</summary>
    private static async Task<(string? Step, string Page)> SeenAsync(NailcrowClient ilka, long ticket, IPage page) =>
        ((await ilka.TicketAsync(ticket, Ct)).Run?.Current?.Id, await page.InnerTextAsync("main"));

    [Fact]
    public async Task What_somebody_else_writes_appears_by_itself()
    {
        var ticket = await use.TypedTicketAsync();
        var page = await use.PageAsync();
        await page.GotoAsync($"/tickets/{ticket}");
        await SeesAsync(page, "Journal");

        await (await use.AsAsync("tamsel")).WriteAsync(ticket, new NoteWritten("Key is with the porter"), Ct);

        await SeesAsync(page, "Note: Key is with the porter");
    }

    [Fact]
    public async Task A_swap_can_be_answered_with_the_keyboard_alone()
    {
        var ticket = await use.TypedTicketAsync("backup");
        var page = await use.PageAsync();
        await page.GotoAsync($"/tickets/{ticket}/run");
        await StandsAtAsync(page, "Ask the customer if there is a backup");

        for (var tabs = 0; tabs < 20 && await page.EvaluateAsync<string>("document.activeElement.textContent") != "Yes"; tabs++)
            await page.Keyboard.PressAsync("Tab");
        await page.Keyboard.PressAsync("Enter");
        await StandsAtAsync(page, "Write down of what, how old");
        await page.Keyboard.TypeAsync("Nightly");
        await page.Keyboard.PressAsync("Enter");

        await StandsAtAsync(page, "Put on the earthing strap");
    }

    [Fact]
    public async Task A_refusal_is_said_where_the_person_acted_and_what_was_typed_is_still_there()
    {
        var ticket = await use.TypedTicketAsync();
        await (await use.AsAsync("dorrik")).WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);
        var page = await use.PageAsync("sefa");
        await page.GotoAsync($"/tickets/{ticket}/return");
        await page.GetByLabel("Serial").FillAsync("C");
        await page.GetByLabel("Model, as its label says").FillAsync("C12T");
        await page.GetByLabel("Bytes").FillAsync("12000138625024");
        await page.GetByLabel("Where it lies").FillAsync("Stores");
        await PressAsync(page, "Reserve it");

        (await page.GetByRole(AriaRole.Alert).TextContentAsync()).ShouldBe("Serial 'C' has 1 character; a label has 4 to 40.");
        (await page.GetByLabel("Model, as its label says").InputValueAsync()).ShouldBe("C12T");
    }

    [Fact]
    public async Task The_bays_are_typed_by_hand_where_no_wire_reaches_the_machine()
    {
        var ilka = await use.AsAsync("ilka");
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0311", "Disk gone"), Ct)).Ticket;
        var page = await use.PageAsync();
        await page.GotoAsync($"/tickets/{ticket}/snapshot");
        foreach (var bay in Enumerable.Range(1, 4))
        {
            await page.GetByLabel($"Serial in bay {bay}").FillAsync($"T4AAAA{bay}");
            await page.GetByLabel($"Role of bay {bay}").SelectOptionAsync(bay == 3 ? "dropped" : "member");
            await page.GetByLabel($"Array of bay {bay}").SelectOptionAsync("gauges");
        }
        await page.GetByLabel("Array gauges (raid10) is").SelectOptionAsync("degraded");
        await PressAsync(page, "That is what I see");
        // The way back may come out of the browser's memory, and then nothing is loaded: the address itself is waited for.
        await Assertions.Expect(page).Not.ToHaveURLAsync(new System.Text.RegularExpressions.Regex("snapshot$"));

        (await ilka.TicketAsync(ticket, Ct)).Danger.Sentence.ShouldBe(
            "gauges is degraded, 3 of 4 members: one more loss and its data is gone."
        );
    }

    [Fact]
    public async Task The_first_load_is_light_and_the_chart_comes_later()
    {
        var page = await use.PageAsync(person: null);
        var loaded = new List<string>();
        page.Request += (_, request) => loaded.Add(new Uri(request.Url).AbsolutePath);

        await page.ReloadAsync();
        await page.GetByLabel("Name").WaitForAsync();

        loaded.ShouldNotContain(p => p.Contains("rebuilds-", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_rebuild_that_is_only_read_by_people_is_followed_all_the_same()
    {
        var ticket = await use.TypedTicketAsync("joined");
        var ilka = await use.AsAsync("ilka");
        var page = await use.PageAsync(phone: true);
        await page.GotoAsync($"/tickets/{ticket}/rebuild");
        await page.GetByLabel("Percent on the screen").FillAsync("62,5");
        await PressAsync(page, "Keep this reading");

        await SeesAsync(page, "62.5 % of rebuilding; too early to tell.");
        (await ilka.TicketAsync(ticket, Ct)).Rebuild.Look.Last?.Percent.ShouldBe(62.5m);
        (await ilka.TicketAsync(ticket, Ct)).Rebuild.Look.State.ShouldBe(RebuildState.TooEarly);
    }
}
