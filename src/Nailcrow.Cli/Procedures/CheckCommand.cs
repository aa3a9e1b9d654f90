using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Terms;
using Nailcrow.Procedures;

namespace Nailcrow.Cli.Procedures;

/// <summary>Reads and proves procedure files. Needs no service.</summary>
internal static class CheckCommand
{
    public static Command Build()
    {
        var files = new Argument<string[]>("FILE") { Description = "Procedure files.", Arity = ArgumentArity.OneOrMore };
        return new Command("check", "Read procedure files and prove them: every path, every machine, every answer. Needs no service.")
        {
            files,
        }.Does(call =>
        {
            var views = call.Get(files).AsParallel().AsOrdered().Select(View).ToList();
            call.Show(new ProcedureList(views), ContractJson.Default.ProcedureList, screen => views.ForEach(v => Draw(screen, v)));
            return views.TrueForAll(v => v.IsProved)
                ? Task.CompletedTask
                : throw new Refusal($"{views.Count(v => !v.IsProved)} of {views.Count} cannot be published.");
        });
    }

    internal static ProcedureView View(string path)
    {
        var (procedure, problems) = ProcedureFiles.Find(path);
        return Checking.View(path, procedure, problems);
    }

    private static void Draw(Screen screen, ProcedureView view)
    {
        foreach (var problem in view.Problems)
            screen.Plain($"{problem}\n"); // unwrapped: editors read these lines
        if (view.Id is null)
            return;
        screen.Line(
            $"{Screen.Safe(view.File)}: {Screen.Safe(view.Id)} {view.Version}, {view.Steps} steps, {view.States} "
                + "situations: "
                + $"{(view.IsProved ? "proved" : $"{view.Findings.Count} {(view.Findings.Count == 1 ? "thing" : "things")} wrong")}."
        );
        foreach (var finding in view.Findings)
            Draw(screen, finding);
        if (view is { IsProved: true, Trusted: [_, ..] trusted })
            TrustTold.List(screen, trusted, $"Taken on trust, since no proof can know it ({trusted.Count}; {view.Trusting}):");
    }

    private static void Draw(Screen screen, Finding finding)
    {
        screen.Line($"\n  [bold]{Words.Of(finding.Rule)}[/]  {Screen.Safe(finding.Sentence)}");
        screen.Line($"  [dim]{Screen.Safe($"{finding.At.File}:{finding.At.Line}:{finding.At.Column}")}[/]");
        for (var i = 0; i < finding.Path.Count; i++)
        {
            var step = finding.Path[i];
            screen.Line(
                step.Step is null
                    ? $"      [dim]where {Screen.Safe(step.Answer)}[/]"
                    : $"  {i + 1, 3}  {Screen.Safe(step.Step), -18}{Screen.Safe(step.Answer), -12}[dim]{Screen.Safe(Short(step.Say))}[/]"
            );
        }
    }

    private static string Short(string say) => say.Length > 70 ? say[..69] + "…" : say;
}
