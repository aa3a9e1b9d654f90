using System.CommandLine;
using System.Text.Json;
using Nailcrow.Cli.Shell;
using Nailcrow.Client;
using Nailcrow.Client.Procedures;
using Nailcrow.Core;
using Nailcrow.Core.Procedures;

namespace Nailcrow.Cli.Procedures;

internal static class ProcedureCommands
{
    public static Command Build() => new("procedure", "Swap instructions, as data.") { List(), Show(), Check() };

    private static Command List() =>
        new Command("list", "The library, with what is wrong in files that cannot be used.").Does(async call =>
        {
            var list = await call.Client.ProceduresAsync(call.Ct);
            call.Show(list, ContractJson.Default.ProcedureList, screen =>
            {
                screen.Table(["procedure", "title", "steps", "version", "file"], list.Procedures.Select(p => new[]
                {
                    $"[bold]{Screen.Safe(p.Id ?? "-")}[/]", Screen.Safe(p.Title ?? "cannot be used"), $"{p.Steps}", Screen.Safe(p.Version), Screen.Safe(p.File),
                }));
                foreach (var problem in list.Procedures.SelectMany(p => p.Problems))
                    screen.Line(Screen.Safe(problem.ToString()));
            });
        });

    private static Command Show()
    {
        var file = Said.Text("FILE", "A procedure file.");
        return new Command("show", "Print the steps of a procedure file, with where each answer leads.") { file }.Does(call =>
        {
            var procedure = Read(call, call.Get(file));
            call.Screen.Line($"[bold]{Screen.Safe(procedure.Title)}[/]  {Screen.Safe(procedure.Id)}, version {procedure.Version}");
            var chapter = "";
            foreach (var (step, when) in procedure.Steps.Select(s => (s.Step, s.When)))
            {
                if (step.Chapter != chapter)
                    call.Screen.Line($"\n[bold]{Screen.Safe(chapter = step.Chapter)}[/]");
                var only = when.Count == 0 ? "" : $" (only if {string.Join(" and ", when.Select(w => $"{w.Key} is {string.Join(" or ", w.Value)}"))})";
                call.Screen.Line($"  {Screen.Safe(step.Id),-18}{Words.Of(step.Kind),-6}{Screen.Safe(step.Say + only)}");
                foreach (var answer in step.Answers.Where(_ => step.Answers.Count > 1))
                    call.Screen.Line($"  {"",-24}[dim]{Screen.Safe(answer.Answer)}: {Screen.Safe(answer.Next ?? "the end")}[/]");
            }
            return Task.CompletedTask;
        });
    }

    private static Command Check()
    {
        var file = Said.Text("FILE", "A procedure file.");
        return new Command("check", "Read a procedure file; every problem is told with line and column. Needs no service.") { file }.Does(call =>
        {
            var procedure = Read(call, call.Get(file));
            var view = new ProcedureView(call.Get(file), procedure.Id, procedure.Title, procedure.Version, procedure.Steps.Count, []);
            call.Show(view, ContractJson.Default.ProcedureView, screen => screen.Line($"{Screen.Safe(call.Get(file))}: {Screen.Safe(procedure.Id)}, {procedure.Steps.Count} steps, nothing wrong found."));
            return Task.CompletedTask;
        });
    }

    private static Procedure Read(Call call, string path)
    {
        var (procedure, problems) = ProcedureReader.Read(path, File.ReadAllText(path));
        if (procedure is not null && problems.Count == 0)
            return procedure;
        if (call.Json)
            call.Screen.Json(new ProcedureView(path, procedure?.Id, procedure?.Title, procedure?.Version, procedure?.Steps.Count ?? 0, problems), ContractJson.Default.ProcedureView);
        throw new Refusal(string.Join(Environment.NewLine, problems));
    }
}
