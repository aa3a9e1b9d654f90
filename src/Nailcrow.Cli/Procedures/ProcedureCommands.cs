using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;

namespace Nailcrow.Cli.Procedures;

internal static class ProcedureCommands
{
    public static Command Build() =>
        new("procedure", "Swap instructions, as data: written, proved, published.")
        {
            NewCommand.Build(),
            CheckCommand.Build(),
            ShowCommand.Build(),
            DrawCommand.Build(),
            TryCommand.Build(),
            PublishCommands.Publish(),
            List(),
            PublishCommands.Versions(),
            PublishCommands.Compare(),
            PublishCommands.Withdraw(),
            PublishCommands.BringBack(),
            PublishCommands.Times(),
            SchemaCommand.Build(),
        };

    private static Command List() =>
        new Command("list", "The library, with what the proof says, and what is wrong in files that cannot be used.").Does(async call =>
        {
            var list = await call.Client.ProceduresAsync(call.Ct);
            call.Show(
                list,
                ContractJson.Default.ProcedureList,
                screen =>
                {
                    screen.Table(
                        ["procedure", "title", "steps", "version", "proof"],
                        list.Procedures.Select(p =>
                            new[]
                            {
                                $"[bold]{Screen.Safe(p.Id ?? p.File)}[/]",
                                Screen.Safe(p.Title ?? "cannot be used"),
                                $"{p.Steps}",
                                Screen.Safe(p.Version),
                                p.Withdrawn is { } why ? $"[bold]withdrawn:[/] {Screen.Safe(why)}"
                                : p.IsProved ? $"proved, {p.States} situations"
                                : $"[bold]{p.Problems.Count + p.Findings.Count} things wrong[/]",
                            }
                        )
                    );
                    foreach (
                        var wrong in list.Procedures.SelectMany(p => p.Problems.Select(q => $"{q}").Concat(p.Findings.Select(f => $"{f}")))
                    )
                        screen.Line(Screen.Safe(wrong));
                }
            );
        });
}
