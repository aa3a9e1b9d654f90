using System.Diagnostics;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Language;
using Nailcrow.Procedures.Sheets;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>The library proved, a sheet compiled, a step acknowledged; and how the proof grows with what it depends on.</summary>
internal static class Procedures
{
    private const int Rounds = 200;

    public static async Task MeasureAsync()
    {
        var library = ProcedureFolder.Read(Path.Combine(Built.Root, "procedures"));
        Told.Plain(
            $"{library.Count} procedures read and proved by the command, from its start to its end",
            Told.Median(Enumerable.Range(0, 5).Select(_ => Checked(library))),
            "s",
            "under 2"
        );
        Told.Plain(
            "  situations looked at",
            library.Sum(r => Prover.Prove(r.Procedure ?? throw new InvalidDataException(r.File)).States),
            "",
            ""
        );
        foreach (var conditions in new[] { 0, 5, 10, 20, 40 })
            Told.Plain(
                $"  situations with {conditions} independent conditions",
                Prover.Prove(WithConditions(conditions)).States,
                "",
                conditions == 20 ? "not a million times 1" : ""
            );
        Compile(library[0].Procedure is null ? [] : [.. library.Select(r => r.Procedure).OfType<Procedure>()]);
        await StepAgainstEntryAsync();
    }

    private static double Checked(
        IReadOnlyList<(string File, string Text, Procedure? Procedure, IReadOnlyList<ProcedureProblem> Problems)> library
    )
    {
        var clock = Stopwatch.StartNew();
        var start = new ProcessStartInfo(
            Published.Command,
            ["procedure", "check", .. library.Select(r => Path.Combine(Built.Root, "procedures", r.File))]
        )
        {
            RedirectStandardOutput = true,
        };
        using var check = Process.Start(start) ?? throw new InvalidOperationException("The command did not start.");
        check.StandardOutput.ReadToEnd();
        check.WaitForExit();
        return check.ExitCode == 0 ? clock.Elapsed.TotalSeconds : throw new InvalidDataException("A procedure that ships is not proved.");
    }

    private static void Compile(IReadOnlyList<Procedure> procedures)
    {
        var slowest = 0.0;
        foreach (var procedure in procedures)
        foreach (var model in SampleModels.For(procedure, 4))
            slowest = Math.Max(slowest, Told.Median(Enumerable.Range(0, Rounds).Select(_ => Took(procedure, model)).Skip(Rounds / 2)));
        Told.Plain("a sheet compiled, the slowest of all", slowest, "ms", "under 5");
    }

    private static double Took(Procedure procedure, ApplianceModel model)
    {
        var clock = Stopwatch.StartNew();
        GC.KeepAlive(SheetCompiler.Compile(procedure, SampleFacts.For(procedure, model), Guid.Empty));
        return clock.Elapsed.TotalMilliseconds;
    }

    /// <summary>Marks answered and looked at again, against notes on the same ticket, in turn.</summary>
    private static async Task StepAgainstEntryAsync()
    {
        await using var service = await RunningService.StartPeopledAsync(assembly: Published.Service);
        var (ilka, sefa) = (await service.SignInAsync("ilka"), await service.SignInAsync("sefa"));
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off", Bay: "5", Serial: "OLD0005X"), default)).Ticket;
        await ilka.WriteAsync(ticket, new EngineerAssigned("ilka"), default);
        await ilka.WriteAsync(
            ticket,
            new SnapshotTaken(
                new(
                    DateTimeOffset.UtcNow,
                    "person",
                    [
                        .. Enumerable
                            .Range(1, 8)
                            .Select(b => new Bay(
                                $"{b}",
                                b == 5 ? BayRole.Dropped : BayRole.Member,
                                DriveHealth.Good,
                                $"sd{b}",
                                $"OLD000{b}X",
                                Bytes: 12_000_138_625_024,
                                Array: "catalogue"
                            )),
                    ],
                    [new("catalogue", ArrayLevel.Raid6, 8, ArrayState.Degraded)]
                )
            ),
            default
        );
        await sefa.WriteAsync(ticket, new PartReserved("NEW0001Y", "Cindral C12T", 12_000_138_625_024, "Stores"), default);
        await sefa.WriteAsync(ticket, new PartIssued("NEW0001Y", "ilka"), default);
        await ilka.WriteAsync(ticket, new ArrivedOnSite(), default);
        await ilka.StartRunAsync(ticket, null, default);
        var sheet = (await ilka.TicketAsync(ticket, default)).Run!.Sheet; // the line above made it
        await ilka.WriteAsync(ticket, new StepPassed(sheet.Id, "part"), default);
        var (steps, notes) = (new List<double>(), new List<double>());
        for (var i = 0; i < Rounds; i++)
        {
            steps.Add(await TookAsync(() => ilka.WriteAsync(ticket, new StepAnswered(sheet.Id, "backup", "yes"), default)));
            notes.Add(await TookAsync(() => ilka.WriteAsync(ticket, new NoteWritten("The key is with the porter."), default)));
            steps.Add(await TookAsync(() => ilka.WriteAsync(ticket, new StepTakenBack(sheet.Id, "backup"), default)));
            notes.Add(await TookAsync(() => ilka.WriteAsync(ticket, new NoteWritten("The porter is at lunch."), default)));
        }
        Told.Line("an answered step acknowledged", Told.Median(steps.Skip(Rounds)), Told.Median(notes.Skip(Rounds)), "ms", "at most 1.5");
    }

    private static async Task<double> TookAsync(Func<Task<Receipt>> write)
    {
        var clock = Stopwatch.StartNew();
        await write();
        return clock.Elapsed.TotalMilliseconds;
    }

    private static Procedure WithConditions(int conditions)
    {
        var steps = string.Concat(
            Enumerable
                .Range(1, conditions)
                .Select(i =>
                    $"      - {{ id: ask{i}, look: Is it so?, answers: {{ \"yes\": go on, \"no\": go on }} }}\n      - {{ "
                    + $"id: only{i}, do: Do it., when: answer.ask{i} is yes }}\n"
                )
        );
        var text =
            "procedure: made\ntitle: Made\ncomes-back: unchanged\napplies-to: always\nchapters:\n  - chapter: "
            + $"One\n    steps:\n{steps}      - {{ id: seen, gate: Seen., needs: seen-again, answers: {{ ask: help "
            + $"}}, then: end }}\n      - {{ id: help, call: Call., with: [asset], then: seen }}\n";
        return ProcedureReader.Read("made.yaml", text, Shelf.Empty) is ({ } procedure, _)
            ? procedure
            : throw new InvalidDataException(text);
    }
}
