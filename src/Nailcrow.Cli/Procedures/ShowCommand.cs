using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Procedures;

internal static class ShowCommand
{
    public static Command Build()
    {
        var file = Said.Text("FILE", "A procedure file.");
        return new Command("show", "Print the steps of a procedure file, with where each answer leads.") { file }.Does(call =>
        {
            var procedure = ProcedureFiles.Read(call, call.Get(file));
            call.Screen.Line($"[bold]{Screen.Safe(procedure.Title)}[/]  {Screen.Safe(procedure.Id)}, version {procedure.Version}");
            call.Screen.Line($"[dim]for {Screen.Safe($"{procedure.AppliesTo}")}; redundancy comes back {Words.Of(procedure.ComesBack)}[/]");
            var chapter = "";
            foreach (var written in procedure.Steps)
            {
                var step = written.Step;
                if (step.Chapter != chapter)
                    call.Screen.Line($"\n[bold]{Screen.Safe(chapter = step.Chapter)}[/]");
                var only = written.When == Condition.Always ? "" : $" (only where {written.When})";
                call.Screen.Line(
                    $"  {(written.Loop is null ? " " : "↻")} {Screen.Safe(step.Id), -18}{Words.Of(step.Kind), -6}{Screen.Safe(step.Say + only)}"
                );
                foreach (var answer in step.Answers.Where(_ => step.Answers.Count > 1))
                    call.Screen.Line($"    {"", -24}[dim]{Screen.Safe(answer.Answer)}: {Screen.Safe(answer.Next ?? "the end")}[/]");
            }
            return Task.CompletedTask;
        });
    }
}
