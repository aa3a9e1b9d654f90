using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>One ticket from its report to its end, as the people on it play it. Time passes as it does on site: each thing takes half a minute.</summary>
internal sealed class Story
{
    private const int MostSteps = 150;

    private readonly TheFirm _firm;
    private readonly string _model;
    private readonly string _asset;
    private readonly Clock _clock;
    private long? _ticket;
    private int _parts;
    private RunSheet? _sheet; // has a hundred steps, and never changes

    public Story(TheFirm firm, string model = "brackmere-b12")
    {
        (_firm, _model, _clock) = (firm, model, new());
        Nth = firm.NextMachine();
        Machine = new(Nth);
        _asset = $"FSC-STORY-{Nth}";
    }

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private int Nth { get; }

    public Machine Machine { get; }

    public string Asset => _asset;

    public long Ticket => _ticket ?? throw new InvalidOperationException("Nothing is reported yet.");

    /// <summary>Serials of parts that stores handed out, in order.</summary>
    public List<string> Parts { get; } = [];

    /// <summary>Who follows the sheet.</summary>
    public string Engineer { get; set; } = "ilka";

    public Task<NailcrowClient> AsAsync(string who) => _firm.AsAsync(who);

    public async Task<TicketView> ViewAsync(string? who = null)
    {
        var client = await AsAsync(who ?? Engineer);
        var view = _sheet is { } sheet ? await client.TicketAsync(Ticket, sheet, Ct) : await client.TicketAsync(Ticket, Ct);
        _sheet = view.Run?.Sheet;
        return view;
    }

    public async Task<string?> StepAsync() => (await ViewAsync()).Run?.Current?.Id;

    /// <summary>The sheet is another one from now on, and is asked for anew.</summary>
    public void Forgets() => _sheet = null;

    public Task StartsAnewAsync() => _firm.StartsAnewAsync();

    public void Waits(TimeSpan span) => _clock.At += span;

    /// <summary>What happens from now on happens in the last half hour: what is told of a rebuild depends on the hour.</summary>
    public void ComesToToday() => _clock.At = DateTimeOffset.UtcNow - TimeSpan.FromMinutes(28);

    private Story(Story first, long ticket)
    {
        (_firm, _model, _asset, Nth, Machine, _clock) = (first._firm, first._model, first._asset, first.Nth, first.Machine, first._clock);
        (_ticket, _parts, Engineer) = (ticket, 50, first.Engineer);
    }

    /// <summary>Another ticket of the same machine, from now on.</summary>
    public Story On(long ticket) => new(this, ticket);

    /// <summary>The other open tickets of the machine.</summary>
    public async Task<IEnumerable<TicketLine>> BesideAsync() =>
        (await (await AsAsync("dorrik")).TicketsAsync(new(Ended: false, Asset: _asset), Ct)).Tickets.Where(t => t.Number != Ticket);

    /// <summary>What the journal says, entry by entry.</summary>
    public async Task<IReadOnlyList<string>> ToldAsync()
    {
        var told = new List<string>();
        for (long? after = 0; after is { } from; )
        {
            var page = await (await AsAsync(Engineer)).JournalAsync(Ticket, from, Ct);
            told.AddRange(page.Told ?? []);
            after = page.Next;
        }
        return told;
    }

    /// <summary>The last entry of a kind that says something.</summary>
    public async Task<Entry> LastAsync<T>(Func<T, bool>? that = null)
        where T : EntryBody
    {
        var all = new List<Entry>();
        for (long? after = 0; after is { } from; )
        {
            var page = await (await AsAsync(Engineer)).JournalAsync(Ticket, from, Ct);
            all.AddRange(page.Entries);
            after = page.Next;
        }
        return all.Last(e => e.Body is T body && (that?.Invoke(body) ?? true));
    }

    /// <summary>What the service report says, line by line.</summary>
    public async Task<IReadOnlyList<string>> ReportSaysAsync() =>
        [.. (await (await AsAsync(Engineer)).ReportOfAsync(Ticket, Ct)).Parts.SelectMany(p => p.Lines.Select(l => $"{p.Name}: {l.Says}"))];

    /// <summary>A drive drops out; it is reported, assigned, looked at, and a part is on its way with the engineer, who has arrived.</summary>
    public async Task<Story> OnSiteAsync(string bay = "2", bool issued = true, long bytes = 8_000_000_000_000, int parts = 1)
    {
        await IsKnownAsync();
        Machine.Drops(bay);
        await ReportedAsync(new(_asset, "It beeps", JobKind.Fault, Bay: bay, Serial: Machine.Serial(bay)));
        if (parts > 0)
            await PartAsync(issued, bytes);
        await DoesAsync(Engineer, new ArrivedOnSite());
        return this;
    }

    /// <summary>The machine stands at the first site, and nobody has said anything of it yet.</summary>
    public async Task IsKnownAsync()
    {
        var site = (await (await AsAsync("admin")).AppliancesAsync(null, Ct)).Appliances[0].Site.Name;
        await (await AsAsync("admin")).LoadAsync(new([], [], [new(_asset, $"CH-S{Nth:000}", _model, site, "Hall")]), Ct);
    }

    /// <summary>Somebody says what is wrong, or wanted; it is assigned, and looked at for the first time.</summary>
    public async Task<Story> ReportedAsync(FaultAsk fault)
    {
        _ticket = (await (await AsAsync("ilka")).ReportAsync(fault with { At = Now() }, Ct)).Ticket;
        await DoesAsync("dorrik", new EngineerAssigned(Engineer));
        await LooksAsync();
        return this;
    }

    /// <summary>Another trouble with the same machine, after this one.</summary>
    public async Task<Story> LaterAsync(string bay)
    {
        var later = On(0);
        later._parts = _parts + 10;
        Machine.Drops(bay);
        return await later.ReportedAsync(new(_asset, "It beeps again", JobKind.Fault, Bay: bay, Serial: Machine.Serial(bay)));
    }

    /// <summary>On site, and the sheet followed to its end: the old drive is in the engineer's hands.</summary>
    /// <returns>Its serial.</returns>
    public async Task<string> SwappedAsync(bool firstPartWasDead = false)
    {
        await OnSiteAsync();
        var old = Machine.Serial("2");
        if (firstPartWasDead)
        {
            await DoesAsync(Engineer, new PartGivenUp(Parts[0], NoReplacement.DeadOnArrival));
            await PartAsync();
        }
        await StartAsync();
        await FollowAsync();
        return old;
    }

    /// <summary>A swap is done, and a return of the old drive is open.</summary>
    public async Task<string> GoesBackAsync(Holder to, bool firstPartWasDead = false)
    {
        var (old, maker) = (await SwappedAsync(firstPartWasDead), to.Kind == HolderKind.Maker);
        var reason = maker ? ReturnReason.ExchangeUnderWarranty : ReturnReason.BackToStores;
        await DoesAsync(Engineer, new ReturnOpened(old, reason, to, maker ? "RX-1" : null, DataAgreedBy: "R. Alder"));
        return old;
    }

    /// <summary>On site, and the sheet followed up to a step.</summary>
    public async Task<Story> AtAsync(string step)
    {
        await OnSiteAsync();
        await StartAsync();
        await FollowAsync(step);
        return this;
    }

    public async Task StartAsync(string? procedure = null, string? because = null)
    {
        await (await AsAsync(Engineer)).StartRunAsync(Ticket, procedure, Ct, Now(), because);
        Forgets();
    }

    /// <summary>Stores sets another part aside and hands it over.</summary>
    public async Task<string> PartAsync(bool issued = true, long bytes = 8_000_000_000_000)
    {
        var serial = $"NEW{Nth:000}P{++_parts}X";
        await DoesAsync("sefa", new PartReserved(serial, _model == "brackmere-b12" ? "Cindral C8" : "Hask H9-X", bytes, "Stores"));
        if (issued)
            await DoesAsync("sefa", new PartIssued(serial, Engineer));
        Parts.Add(serial);
        return serial;
    }

    /// <summary>Somebody types what the machine's screen shows now.</summary>
    public Task LooksAsync(string? who = null) => DoesAsync(who ?? Engineer, new SnapshotTaken(Machine.Seen()));

    public async Task<Receipt> DoesAsync(string who, EntryBody body) => await (await AsAsync(who)).WriteAsync(Ticket, body, Ct, Now());

    public async Task<(int Status, string Sentence)> RefusedAsync(string who, EntryBody body)
    {
        var no = await Should.ThrowAsync<ApiProblem>(() => DoesAsync(who, body));
        return ((int)no.Status, no.Message);
    }

    public async Task AnswersAsync(string answer, string? who = null) => await AnswersAsync((await ViewAsync()).Run!, answer, who); // where a run is

    private Task<Receipt> AnswersAsync(RunView run, string answer, string? who = null) =>
        DoesAsync(who ?? Engineer, Body(run, run.Current!, answer)); // a story answers before the end

    /// <summary>Does the one step that the run stands at, as the sheet says.</summary>
    public async Task DoesWhatItSaysAsync() => await OneStepAsync(await ViewAsync());

    /// <summary>The engineer calls as the sheet says, and a lead answers.</summary>
    public async Task CallsAsync(bool goAhead, string answer, string reason = "As the sheet says.")
    {
        await DoesAsync(Engineer, new HelpCalled(reason));
        await DoesAsync("lioth", new HelpAnswered(goAhead, answer));
    }

    /// <summary>Does what the sheet says until it stands at a step, or at its end; where a gate asks for a look, one is taken.</summary>
    public async Task<TicketView> FollowAsync(string? until = null)
    {
        for (var steps = 0; steps < MostSteps; steps++)
        {
            var view = await ViewAsync();
            if (view.Run?.Current is not { } step || step.Id == until)
                return view;
            if (step.Kind == StepKind.Gate && view.Run.Unmet is not null)
            {
                if (step.Gate is GateFact.ArrayWhole or GateFact.DriveJoined)
                    Machine.Finishes();
                await LooksAsync();
                view = await ViewAsync();
                if (view.Run?.Unmet is { } unmet)
                    throw new InvalidOperationException($"It stands at '{step.Id}': {unmet}");
            }
            await OneStepAsync(view);
        }
        throw new TimeoutException($"The run never came to '{until ?? "its end"}'; it stands at '{await StepAsync()}'.");
    }

    private async Task OneStepAsync(TicketView view)
    {
        var step = view.Run?.Current ?? throw new InvalidOperationException("The run is at its end.");
        await AnswersAsync(
            view.Run!, // it is followed
                step.Kind == StepKind.Scan ? view.Run!.Expected ?? ""
                : step.Answers.Any(a => a.Answer == "yes") ? "yes"
                : step.Answers[0].Answer
        );
        if (step.Records == Records.DrawnOut)
            Machine.Loses(view.Run!.Sheet.DriveOf(step).Bay);
        if (step.Records == Records.Reseated)
            Machine.Gets(view.Run!.Sheet.DriveOf(step).Bay, view.Swap.OutSerial!);
        if (step.Records == Records.Inserted)
            Machine.Gets(view.Run!.Sheet.DriveOf(step).Bay, view.Run.Sheet.DriveOf(step).PartSerial!);
    }

    /// <summary>What is over is told as over: the customer signs, all drives go back, nothing is open.</summary>
    public async Task<TicketView> ClosesAsync()
    {
        await FollowAsync();
        await DoesAsync(Engineer, new CustomerSignedOff("R. Alder"));
        await ReturnsAllAsync();
        await DoesAsync(Engineer, new TicketClosed());
        return await ViewAsync();
    }

    /// <summary>Whatever a person still holds goes back to stores.</summary>
    public async Task ReturnsAllAsync()
    {
        while (
            (await ViewAsync())
                .Moves.Where(m => m.WhyNot is null)
                .Select(m => m.Body)
                .OfType<ReturnOpened>()
                .FirstOrDefault(r => r.To.Kind == HolderKind.Depot)
                is { } back
        )
        {
            var serial = back.Serial;
            await DoesAsync(Engineer, back with { To = new(HolderKind.Depot, "Stores"), DataAgreedBy = "R. Alder" });
            await DoesAsync(Engineer, new ReturnSent(serial, "Gullwing Freight"));
            await DoesAsync("sefa", new ReturnArrived(serial, serial));
        }
    }

    private DateTimeOffset Now()
    {
        var (next, really) = (_clock.At + TimeSpan.FromSeconds(30), DateTimeOffset.UtcNow);
        return _clock.At = next < really ? next : really;
    }

    private static EntryBody Body(RunView run, RunStep step, string answer) =>
        step.Decides is not null ? new StepDecided(run.Sheet.Id, step.Id, answer)
        : step.IsPassed && answer == RunStep.Done ? new StepPassed(run.Sheet.Id, step.Id)
        : new StepAnswered(
            run.Sheet.Id,
            step.Id,
            step.Erases && answer == RunStep.Done ? $"{run.Sheet.DriveOf(step).Bay} {run.Expected}"
                : step.Kind == StepKind.Read && answer == RunStep.Done
                    ? (step.Unit is null ? "Nightly" : $"{step.AtLeast ?? 1} {step.Unit}")
                : answer
        );

    /// <summary>What time it is at the machine; one for all tickets that are worked on there.</summary>
    private sealed class Clock
    {
        public DateTimeOffset At { get; set; } = DateTimeOffset.UtcNow.AddDays(-2);
    }
}
