using System.Text.Json;
using Microsoft.Playwright;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Provider;
using Nailcrow.Running;

namespace Nailcrow.Console.Tests;

/// <summary>The real service with the built console, a machine, and a browser without a window.</summary>
public sealed class ConsoleInUse : IAsyncLifetime
{
    /// <summary>The drive in bay 5 of the machine nobody reaches by wire; its label is what the camera sees.</summary>
    public const string FailedDrive = "CDR12T0005";

    private const float Patience = 180_000; // a small machine under load is slow, not wrong

    private RunningService? _service;
    private RunningStandIn? _machine;
    private RunningProvider? _provider;
    private IPlaywright? _playwright;
    private IBrowser? _browser;

    public RunningService Service => _service ?? throw new InvalidOperationException("Not started yet.");

    public RunningStandIn Machine => _machine ?? throw new InvalidOperationException("Not started yet.");

    /// <summary>The firm's own provider of sign-ins.</summary>
    public RunningProvider Provider => _provider ?? throw new InvalidOperationException("Not started yet.");

    public async ValueTask InitializeAsync()
    {
        _machine = await RunningStandIn.StartAsync(rebuildSeconds: 600);
        _provider = await RunningProvider.StartAsync();
        _service = await RunningService.StartPeopledAsync(_machine.Address, alone: true, further: _provider.Settings);
        await _provider.KnowsAsync(_service.Address);
        _playwright = await Playwright.CreateAsync();
        Assertions.SetDefaultExpectTimeout(Patience);
        _browser = await _playwright.Chromium.LaunchAsync(
            new()
            {
                ExecutablePath = Built.Browser,
                Args =
                [
                    "--no-sandbox",
                    "--disable-gpu",
                    "--disable-quic",
                    "--no-first-run",
                    "--disable-background-networking",
                    "--disable-component-update",
                    "--disable-sync",
                    "--use-fake-ui-for-media-stream",
                    "--use-fake-device-for-media-stream",
                    $"--use-file-for-fake-video-capture={LabelBeforeCamera.Film($"S{FailedDrive}")}",
                ],
            }
        );
    }

    /// <summary>A page of its own, signed in or not; a phone is 390 by 844, a desk 1280 by 800.</summary>
    /// <param name="host">By which name the service is reached, where it is not by its number.</param>
    public async Task<IPage> PageAsync(
        string? person = "ilka",
        bool phone = false,
        ColorScheme scheme = ColorScheme.Light,
        string? host = null
    )
    {
        await CloseEarlierAsync();
        var context = await (_browser ?? throw new InvalidOperationException("Not started yet.")).NewContextAsync(
            new()
            {
                BaseURL = (host is null ? Service.Address : new UriBuilder(Service.Address) { Host = host }.Uri).ToString(),
                ColorScheme = scheme,
                ReducedMotion = ReducedMotion.Reduce,
                ViewportSize = phone ? new() { Width = 390, Height = 844 } : new() { Width = 1280, Height = 800 },
            }
        );
        _open.Add((TestContext.Current.Test?.UniqueID, context));
        context.SetDefaultTimeout(Patience);
        var page = await context.NewPageAsync();
        await page.GotoAsync("/");
        if (person is null)
            return page;
        await page.GetByLabel("Name").FillAsync(person);
        await page.GetByLabel("Password", new() { Exact = true }).FillAsync(RunningService.Password);
        await page.Keyboard.PressAsync("Enter");
        await page.GetByRole(AriaRole.Heading, new() { Name = "My day" }).WaitForAsync();
        return page;
    }

    private readonly List<(string? Test, IBrowserContext Context)> _open = [];

    /// <summary>A page that is left open goes on listening and asking; a hundred of them take a processor of their own.</summary>
    private async Task CloseEarlierAsync()
    {
        foreach (var (_, context) in _open.Where(o => o.Test != TestContext.Current.Test?.UniqueID))
            await context.CloseAsync();
        _open.RemoveAll(o => o.Test != TestContext.Current.Test?.UniqueID);
    }

    public Task<NailcrowClient> AsAsync(string name) => Service.SignInAsync(name);

    /// <summary>A ticket on a machine nobody reaches by wire, up to the run sheet; answered on to a step.</summary>
    public async Task<long> TypedTicketAsync(string? until = null)
    {
        var (ilka, sefa) = (await AsAsync("ilka"), await AsAsync("sefa"));
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", "The lamp of bay 5 is off"), default)).Ticket;
        await ilka.WriteAsync(ticket, new SnapshotTaken(Typed(FailedDrive, dropped: true)), default);
        if (until is null)
            return ticket;
        await ilka.WriteAsync(ticket, new EngineerAssigned("ilka"), default);
        await sefa.WriteAsync(ticket, new PartReserved($"CDR12TNEW{ticket}", "Cindral C12T", 12_000_138_625_024, "Stores"), default);
        await sefa.WriteAsync(ticket, new PartIssued($"CDR12TNEW{ticket}", "ilka"), default);
        await ilka.WriteAsync(ticket, new ArrivedOnSite(), default);
        await ilka.StartRunAsync(ticket, null, default);
        for (var steps = 0; steps < 60; steps++)
        {
            var view = await ilka.TicketAsync(ticket, default);
            if (view.Run?.Current is not { } step || step.Id == until)
                return ticket;
            if (view.Run.Unmet is not null && step.Kind == StepKind.Gate)
                await ilka.WriteAsync(
                    ticket,
                    new SnapshotTaken(Typed(view.Swap.InSerial ?? FailedDrive, dropped: view.Swap.InSerial is null)),
                    default
                );
            if (step.Kind == StepKind.Hold)
                await Soon.IsAsync(async () => (await ilka.TicketAsync(ticket, default)).Run?.Unmet is null, default);
            await ilka.WriteAsync(ticket, Body(view.Run, step), default);
        }
        throw new TimeoutException($"The run never came to '{until}'.");
    }

    public async Task<string> AtHandAsync() =>
        JsonDocument
            .Parse(await Machine.LookAsync())
            .RootElement.GetProperty("view")
            .GetProperty("table")[0]
            .GetProperty("serial")
            .GetString()
        ?? throw new InvalidOperationException("The table is empty.");

    public async ValueTask DisposeAsync()
    {
        if (_browser is not null)
            await _browser.DisposeAsync();
        _playwright?.Dispose();
        if (_service is not null)
            await _service.DisposeAsync();
        if (_machine is not null)
            await _machine.DisposeAsync();
        if (_provider is not null)
            await _provider.DisposeAsync();
    }

    private static EntryBody Body(RunView run, RunStep step) =>
        step.IsPassed
            ? new StepPassed(run.Sheet.Id, step.Id)
            : new StepAnswered(
                run.Sheet.Id,
                step.Id,
                step.Kind == StepKind.Scan ? run.Expected ?? ""
                    : step.Kind == StepKind.Read ? "Nightly"
                    : step.Answers[0].Answer
            );

    private static Core.Appliances.Snapshot Typed(string inBay5, bool dropped) =>
        new(
            DateTimeOffset.UtcNow,
            "person",
            [
                .. Enumerable
                    .Range(1, 8)
                    .Select(b =>
                        b == 5
                            ? new Core.Appliances.Bay(
                                "5",
                                dropped ? Core.Appliances.BayRole.Dropped : Core.Appliances.BayRole.Filling,
                                dropped ? Core.Appliances.DriveHealth.Faulted : Core.Appliances.DriveHealth.Good,
                                Serial: inBay5,
                                Array: "catalogue"
                            )
                            : new Core.Appliances.Bay(
                                $"{b}",
                                Core.Appliances.BayRole.Member,
                                Core.Appliances.DriveHealth.Good,
                                Serial: $"CDR12T000{b}",
                                Array: "catalogue"
                            )
                    ),
            ],
            [new("catalogue", ArrayLevel.Raid6, 8, dropped ? ArrayState.Degraded : ArrayState.Rebuilding, 12_000_138_625_024)]
        );
}
