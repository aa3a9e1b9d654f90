using Nailcrow.Client.Intake;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Core.Tickets.Waiting;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Language;
using Nailcrow.Procedures.Sheets;
using Nailcrow.Running;
using Nailcrow.Service.Tests.Host;

namespace Nailcrow.Service.Tests.Swaps;

/// <summary>
/// Every procedure that ships, through the real interface: every answer of every step is given at least once, and some run comes to
/// its end.
/// </summary>
public abstract class ProceduresFollowed(PeopledService service) : IClassFixture<PeopledService>
{
    // Enough for the longest procedure with several drives; a run that goes on beyond it goes in circles.
    private const int MostSteps = 260;
    private const int MostRuns = 60;

    // A run that has given nothing new for so long is left where it is: the first one of each machine goes to the end.
    private const int Quiet = 12;

    private static readonly string Folder = Path.Combine(Built.Root, "procedures");

    /// <summary>
    /// Those that are written for one kind of machine, or those for any. Two classes, so that two services work at once. In a run on both
    /// databases every other one is followed on each: what they are followed by is the same.
    /// </summary>
    protected static TheoryData<string> Named(bool forOneKind) =>
        [
            .. ProcedureFolder
                .Read(Folder)
                .Where(r => r.Procedure?.AppliesTo.Facts().Contains("model.loading") == forOneKind)
                .Select(r => r.Procedure!.Id)
                .Where((_, nth) => !RunningService.OnBothInTurn || (nth % 2 == 0) == RunningService.OnServer),
        ]; // the filter left those that could be read

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    protected async Task FollowedThroughAsync(string name)
    {
        var procedure = ProcedureFolder.Read(Folder).First(r => r.Procedure?.Id == name).Procedure!; // Named has read it
        var given = new Dictionary<(string, string), int>();
        var (ended, models) = (0, CoveringModels(procedure));
        foreach (var model in models)
        {
            var open = new HashSet<(string, string)>();
            for (var runs = 0; runs < MostRuns && (runs == 0 || open.Count > 0); runs++)
            {
                var (ticket, machine) = await ReadyAsync(procedure, model);
                var sheet = await SheetAsync(ticket, procedure);
                open =
                [
                    .. sheet
                        .Steps.SelectMany(s => s.Answers.Where(a => !IsNeverSo(sheet, s, a.Answer)).Select(a => (Bare(s.Id), a.Answer)))
                        .Where(e => !given.ContainsKey(e)),
                ];
                ended += await FollowAsync(ticket, sheet, machine, given, runs) ? 1 : 0;
                open.RemoveWhere(given.ContainsKey);
            }
            open.ShouldBeEmpty($"{name} on {model.Id}");
        }
        ended.ShouldBeGreaterThan(0);
    }

    /// <summary>As few sample machines as have each step of the procedure on some sheet: always the one with most that no other has.</summary>
    private static List<ApplianceModel> CoveringModels(Procedure procedure)
    {
        var sheets = SampleModels
            .For(procedure, 5000)
            .Select(m => (Model: m, Steps: Steps(procedure, m)))
            .Where(s => s.Steps.Count > 0)
            .ToList();
        var (chosen, covered) = (new List<ApplianceModel>(), new HashSet<string>());
        while (
            sheets.MaxBy(s => s.Steps.Count(step => !covered.Contains(step))) is { Model: { } model, Steps: { } steps }
            && !covered.IsSupersetOf(steps)
        )
        {
            chosen.Add(model with { Id = $"{procedure.Id}-{chosen.Count}" });
            covered.UnionWith(steps);
        }
        return chosen;
    }

    private static HashSet<string> Steps(Procedure procedure, ApplianceModel model) =>
        SheetCompiler.Compile(procedure, SampleFacts.For(procedure, model, Drives(procedure)), Guid.Empty).Is(out var sheet, out _)
            ? [.. sheet.Steps.Select(s => Bare(s.Id))]
            : [];

    // Seeded, so that what failed once fails again.
    private readonly Random _chance = new(1);
    private static int _machines; // of all cases: a part that went into one machine is not set aside for another
    private int _nth;
    private int _spare;

    /// <summary>A machine of its own for each run: two reports about one machine would join.</summary>
    private async Task<string> KnowAsync(ApplianceModel model)
    {
        _nth = Interlocked.Increment(ref _machines);
        var asset = $"FSC-{model.Id}-{_nth}".ToUpperInvariant();
        var site = (await (await service.AsAsync("ilka")).AppliancesAsync(null, Ct)).Appliances[0].Site.Name;
        await (await service.AsAsync("admin")).LoadAsync(new([model], [], [new(asset, $"CH-{_nth:0000}", model.Id, site, "Hall")]), Ct);
        return asset;
    }

    private async Task<(long Ticket, MadeUpMachine Machine)> ReadyAsync(Procedure procedure, ApplianceModel model)
    {
        var job = SampleFacts.For(procedure, model, Drives(procedure)).Ticket.Job;
        var asset = await KnowAsync(model);
        var machine = new MadeUpMachine(
            _nth,
            procedure.ComesBack,
            job != JobKind.Fault,
            procedure.ComesBack == ComesBack.Cannot ? 2 : Drives(procedure),
            procedure.Id == "dropped-but-good"
        );
        var began = DateTimeOffset.UtcNow.AddDays(-3);
        var ticket = (
            await (await service.AsAsync("ilka")).ReportAsync(
                procedure.ComesBack == ComesBack.Added
                    ? new FaultAsk(asset, "One more is wanted", job, Bay: MadeUpMachine.EmptyBay, At: began)
                    : new FaultAsk(asset, "It beeps", job, Serial: machine.Serials[0], At: began),
                Ct
            )
        ).Ticket;
        await WriteAsync("ilka", ticket, new EngineerAssigned("ilka"), began.AddMinutes(1));
        await SeeAsync(await (await service.AsAsync("ilka")).TicketAsync(ticket, Ct), machine, BayRole.Filling, began.AddMinutes(2));
        if (Drives(procedure) > 1)
            await WriteAsync("ilka", ticket, new DrivesChosen(machine.Serials), began.AddMinutes(3));
        for (var drive = 0; drive < Drives(procedure); drive++)
        {
            await WriteAsync(
                "sefa",
                ticket,
                new PartReserved(machine.Part(drive), "Cindral C8", 8_000_000_000_000, "Stores"),
                began.AddMinutes(4)
            );
            await WriteAsync("sefa", ticket, new PartIssued(machine.Part(drive), "ilka"), began.AddMinutes(5));
        }
        await WriteAsync("ilka", ticket, new ArrivedOnSite(), began.AddMinutes(6));
        return (ticket, machine);
    }

    private async Task<RunSheet> SheetAsync(long ticket, Procedure procedure)
    {
        var ilka = await service.AsAsync("ilka");
        await ilka.StartRunAsync(ticket, procedure.Id, Ct, DateTimeOffset.UtcNow.AddDays(-3).AddMinutes(10));
        return (await ilka.TicketAsync(ticket, Ct)).Run!.Sheet; // the line above made it
    }

    /// <summary>True where the run came to its end.</summary>
    private async Task<bool> FollowAsync(
        long ticket,
        RunSheet sheet,
        MadeUpMachine machine,
        Dictionary<(string, string), int> given,
        int nth
    )
    {
        var (ilka, at) = (await service.AsAsync("ilka"), DateTimeOffset.UtcNow.AddDays(-3).AddMinutes(20));
        var plan = nth == 0 ? [] : Plan(sheet, given);
        var (planned, quiet) = (plan.Count, 0);
        for (var steps = 0; steps < MostSteps && (nth == 0 || steps < planned || quiet < Quiet); steps++)
        {
            at = at.AddSeconds(30);
            var view = await ilka.TicketAsync(ticket, sheet, Ct);
            if (view.Run?.Current is not { } asked)
                return view.Run is { HandedOver: false };
            // What a lead alone says of a call is on the sheet, and not asked of the engineer.
            var step = asked.Kind == StepKind.Call ? view.Run.Sheet.Step(asked.Id)! : asked;
            if (step.Kind == StepKind.Gate && view.Run.Unmet is not null)
                (view, at) = (await OpenAsync(view, step, machine, at), at.AddSeconds(30));
            var choice = Choose(view.Run!, step, given, plan, straight: nth == 0 || steps > MostSteps / 2); // it had a run a moment ago
            if (step.Kind == StepKind.Call && choice is RunStep.Done or RunStep.Refused)
            {
                await WriteAsync("ilka", ticket, new HelpCalled("As the sheet says."), at);
                await WriteAsync("lioth", ticket, new HelpAnswered(choice == RunStep.Done, "So be it."), at = at.AddSeconds(1));
            }
            await WriteAsync(
                step.Decides == Role.Lead ? "lioth" : "ilka",
                ticket,
                Body(view.Run!, step, choice, machine),
                at = at.AddSeconds(1)
            ); // likewise
            quiet = given.ContainsKey((Bare(step.Id), choice)) ? quiet + 1 : 0;
            foreach (var heard in new[] { choice, OnSheet(sheet, step, choice) }.Distinct())
                given[(Bare(step.Id), heard)] = given.GetValueOrDefault((Bare(step.Id), heard)) + 1;
        }
        return false;
    }

    /// <summary>Where a wrong drive may have gone into either of two bays, the view asks which; on the sheet both are "done".</summary>
    private static string OnSheet(RunSheet sheet, RunStep asked, string choice) =>
        sheet.Step(asked.Id)!.Answers.Any(a => a.Answer == choice) ? choice : RunStep.Done; // what is asked is on the sheet

    /// <summary>What was planned, else an answer that nobody has given yet, else straight on.</summary>
    private static string Choose(
        RunView run,
        RunStep step,
        Dictionary<(string, string), int> given,
        Queue<(string Step, string Answer)> plan,
        bool straight
    )
    {
        var possible = step.Answers.Where(a => !(step.Kind == StepKind.Gate && a.Answer == RunStep.Done && run.Unmet is not null)).ToList();
        if (plan.TryPeek(out var planned) && planned.Step == step.Id && possible.Exists(a => a.Answer == planned.Answer))
            return plan.Dequeue().Answer;
        plan.Clear(); // the machine would have it otherwise
        if (!straight && possible.Find(a => !given.ContainsKey((Bare(step.Id), a.Answer))) is { } unheard)
            return unheard.Answer;
        var words = possible.ConvertAll(a => a.Answer);
        return words.Contains("yes") ? "yes"
            : words.Contains(RunStep.Done) || step.Kind == StepKind.Scan ? words[0]
            : words.MinBy(a => given.GetValueOrDefault((Bare(step.Id), a)))!; // a step has an answer
    }

    private const int MostTries = 5_000;
    private const int EnoughTries = 40; // a way that is a little longer costs less than looking for a shorter one
    private const int LongestTry = 200;

    /// <summary>The shortest way to an answer that nobody has given yet, out of the ways that were found by trying without a machine.</summary>
    private Queue<(string Step, string Answer)> Plan(RunSheet sheet, Dictionary<(string, string), int> given)
    {
        List<(string, string)>? best = null;
        for (var tries = 0; tries < MostTries && (best is null || tries < EnoughTries); tries++)
        {
            var (dry, way) = (new DryRun(sheet), new List<(string, string)>());
            while (dry.Current is { } step && way.Count < Math.Min(LongestTry, best?.Count - 1 ?? LongestTry))
            {
                var choices = dry.Choices.Where(c => (c != RunStep.Done || dry.Unmet is null) && !IsNeverSo(sheet, step, c)).ToList();
                if (choices.Count == 0)
                    break;
                var choice =
                    choices.Find(c => !given.ContainsKey((Bare(step.Id), c)))
                    ?? (_chance.Next(4) == 0 ? choices[_chance.Next(choices.Count)] : choices[0]);
                way.Add((step.Id, choice));
                if (!given.ContainsKey((Bare(step.Id), choice)))
                {
                    best = way;
                    break;
                }
                dry.Answer(dry.Typed(choice));
            }
        }
        return new(best ?? []);
    }

    private static EntryBody Body(RunView run, RunStep step, string choice, MadeUpMachine machine) =>
        step.Decides is not null ? new StepDecided(run.Sheet.Id, step.Id, choice)
        : step.IsPassed && choice is RunStep.Done or RunStep.Refused ? new StepPassed(run.Sheet.Id, step.Id)
        : new StepAnswered(run.Sheet.Id, step.Id, Typed(run, step, choice, machine));

    private static string Typed(RunView run, RunStep step, string choice, MadeUpMachine machine) =>
        step.Kind == StepKind.Scan
            ? choice == "exact"
                ? run.Expected ?? "NOTHING1"
                : machine.Wrong // one that is known: what nobody knows is asked again
            : step.Erases && choice == RunStep.Done
                ? $"{run.Sheet.DriveOf(step).Bay} {run.Expected}"
                : step.Kind == StepKind.Read && choice == RunStep.Done
                    ? step.Unit is null
                        ? "Nightly"
                        : $"{step.AtLeast ?? 1} {step.Unit}"
                    : choice;

    /// <summary>Makes the machine show what the gate waits for, where a machine can.</summary>
    private async Task<TicketView> OpenAsync(TicketView view, RunStep step, MadeUpMachine machine, DateTimeOffset at)
    {
        if (step.Gate == GateFact.PartInHand)
            return await AnotherPartAsync(view, at);
        var done = step.Gate is GateFact.DriveJoined or GateFact.ArrayWhole or GateFact.SnapshotAfter or GateFact.AllNewGood;
        var role =
            step.Gate == GateFact.SpareBack ? BayRole.Spare
            : view.Run!.Sheet.ComesBack == ComesBack.Added
                ? done ? BayRole.Spare
                    : BayRole.Unclaimed // a gate of its run is being opened
            : done ? BayRole.Member
            : BayRole.Filling;
        await SeeAsync(
            view,
            machine,
            role,
            at,
            done && !(step.Gate == GateFact.DriveJoined && step.Drive < view.Chosen.Count - 1) ? ArrayState.Whole : null
        );
        if (step.Gate == GateFact.RebuildSeen)
            await WriteAsync(
                "ilka",
                view.Number,
                new ReadingTaken(MadeUpMachine.Array, Progress.Running, RebuildPhase.Rebuilding, "person", 1m),
                at
            );
        return await (await service.AsAsync("ilka")).TicketAsync(view.Number, view.Run!.Sheet, Ct);
    }

    /// <summary>The part was given up; stores hands out another.</summary>
    private async Task<TicketView> AnotherPartAsync(TicketView view, DateTimeOffset at)
    {
        var serial = $"C8SPARE{_nth:0000}{++_spare:000}";
        await WriteAsync("sefa", view.Number, new PartReserved(serial, "Cindral C8", 8_000_000_000_000, "Stores"), at);
        await WriteAsync("sefa", view.Number, new PartIssued(serial, "ilka"), at.AddSeconds(1));
        return await (await service.AsAsync("ilka")).TicketAsync(view.Number, view.Run!.Sheet, Ct); // it stands at a gate of its run
    }

    private async Task SeeAsync(TicketView view, MadeUpMachine machine, BayRole newOnesAre, DateTimeOffset at, ArrayState? state = null) =>
        await WriteAsync("ilka", view.Number, new SnapshotTaken(machine.See(view, newOnesAre, state)), at);

    private async Task WriteAsync(string who, long ticket, EntryBody body, DateTimeOffset at) =>
        await (await service.AsAsync(who)).WriteAsync(ticket, body, Ct, at);

    private static int Drives(Procedure procedure) => procedure.Id is "several" or "released-first" ? 2 : 1;

    /// <summary>An array that has lost too much can spare nothing: that gate stays shut, and the call it leads to is the way.</summary>
    private static bool IsNeverSo(RunSheet sheet, RunStep step, string answer) =>
        sheet.ComesBack == ComesBack.Cannot && step.Gate == GateFact.PullNotFatal && answer == RunStep.Done;

    private static string Bare(string step) => step.Split('.')[0];
}
