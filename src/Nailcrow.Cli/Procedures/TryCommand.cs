using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Terms;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Cli.Procedures;

/// <summary>Follows a procedure dry: nothing is recorded and no service is needed.</summary>
internal static class TryCommand
{
    // A run of chance that has not ended after so many answers goes in circles.
    private const int MostAnswers = 2000;

    public static Command Build()
    {
        var file = Said.Text("FILE", "A procedure file.");
        var drives = new Option<int>("--drives")
        {
            Description = "How many drives come out. Default 1.",
            DefaultValueFactory = _ => 1,
            HelpName = "N",
        };
        var chance = new Option<int?>("--by-chance")
        {
            Description = "Answer by chance, so many times over, instead of asking you.",
            HelpName = "RUNS",
        };
        var seed = new Option<int>("--seed")
        {
            Description = "Where chance begins, so that a run can be repeated. Default 1.",
            DefaultValueFactory = _ => 1,
            HelpName = "NUMBER",
        };
        return new Command("try", "Follow a procedure dry, yourself or by chance. Nothing is recorded.")
        {
            file,
            drives,
            chance,
            seed,
        }.Does(call =>
        {
            var procedure = ProcedureFiles.Read(call, call.Get(file));
            var count = call.Get(drives) is >= 1 and <= ApplianceModel.MostBays and var n
                ? n
                : throw new UsageProblem($"--drives is 1 to {ApplianceModel.MostBays}.");
            if (call.Get(chance) is { } runs)
                ByChance(call, procedure, Sheets(procedure, count), Math.Clamp(runs, 1, 100_000), new Random(call.Get(seed)));
            else
                ByHand(call, Sheets(procedure, count)[0]);
            return Task.CompletedTask;
        });
    }

    private static IReadOnlyList<RunSheet> Sheets(Procedure procedure, int drives)
    {
        var made = SampleModels
            .For(procedure)
            .Select(m => SheetCompiler.Compile(procedure, SampleFacts.For(procedure, m, drives), Guid.Empty))
            .ToList();
        var sheets = made.OfType<Parsed<RunSheet>.Ok>().Select(s => s.Value).ToList();
        return sheets.Count > 0
            ? sheets
            : throw new Refusal(
                made.OfType<Parsed<RunSheet>.Refused>().Select(r => r.Reason).FirstOrDefault()
                    ?? $"No sample machine fits '{procedure.AppliesTo}'."
            );
    }

    private static void ByHand(Call call, RunSheet sheet)
    {
        var run = new DryRun(sheet);
        while (run.Current is { } step)
        {
            call.Screen.Line($"[dim]{Screen.Safe(step.Chapter)}  {Screen.Safe(step.Id)}[/]");
            call.Screen.Line($"[bold]{Words.Of(step.Kind).ToUpperInvariant(), -6}{Screen.Safe(step.Say)}[/]");
            foreach (var told in new[] { step.See, step.Hear, step.IfNot }.OfType<string>())
                call.Screen.Line($"      {Screen.Safe(told)}");
            var typed = call
                .Screen.Ask(
                    $"      {string.Join(" · ", run.Choices)}{(step.TakesText ? $" (or type: {run.Typed(run.Choices[0])})" : "")} > "
                )
                .Trim();
            if (typed == "q")
                return;
            if (typed.Length == 0)
                typed = run.Choices[0];
            if (step.TakesText && run.Choices.Contains(typed))
                typed = run.Typed(typed);
            if (!step.TakesText && !run.Choices.Contains(typed))
                call.Screen.Line(
                    $"      [bold]'{Screen.Safe(typed)}' is no answer here; accepted: {string.Join(", ", run.Choices)}, or q to leave.[/]"
                );
            else if (run.Answer(typed) is { } said)
                call.Screen.Line($"      {Screen.Safe(said)}");
        }
        call.Screen.Line(run.HandedOver ? "[bold]Handed over.[/]" : "[bold]The end.[/]");
    }

    private static void ByChance(Call call, Procedure procedure, IReadOnlyList<RunSheet> sheets, int runs, Random chance)
    {
        var (ended, handedOver, longest) = (0, 0, 0);
        var answered = new HashSet<(string, string)>();
        for (var i = 0; i < runs; i++)
        {
            var run = new DryRun(sheets[i % sheets.Count]);
            while (run.Current is { } step && run.Visits.Count < MostAnswers)
            {
                var choice = run.Choices[chance.Next(run.Choices.Count)];
                answered.Add((step.Id.Split('.')[0], choice));
                run.Answer(run.Typed(choice));
            }
            (ended, handedOver) = (ended + (run.Current is null && !run.HandedOver ? 1 : 0), handedOver + (run.HandedOver ? 1 : 0));
            longest = Math.Max(longest, run.Visits.Count);
        }
        var steps = procedure.Steps.Count(s => answered.Any(a => a.Item1 == s.Id));
        call.Screen.Line(
            $"{Screen.Safe(procedure.Id)}: {runs} runs on {sheets.Count} kinds of machine; {ended} ended, "
                + $"{handedOver} were handed over, {runs - ended - handedOver} went in circles; the longest had "
                + $"{longest} answers."
        );
        call.Screen.Line($"{steps} of {procedure.Steps.Count} steps were visited, with {answered.Count} different answers.");
    }
}
