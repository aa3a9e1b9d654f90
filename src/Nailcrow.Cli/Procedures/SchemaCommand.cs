using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Procedures.Language;

namespace Nailcrow.Cli.Procedures;

internal static class SchemaCommand
{
    public static Command Build() =>
        new Command("schema", "Print the JSON Schema of procedure files.").Does(call =>
        {
            call.Screen.Plain(ProcedureSchema.Text());
            return Task.CompletedTask;
        });
}
