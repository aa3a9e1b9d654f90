using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Procedures.Drawing;

namespace Nailcrow.Cli.Procedures;

internal static class DrawCommand
{
    public static Command Build()
    {
        var file = Said.Text("FILE", "A procedure file.");
        var into = Said.Optional("--into", "Where the drawing goes. Default: beside the file, with .svg.", "FILE");
        return new Command("draw", "Draw its steps and branches as an SVG.") { file, into }.Does(call =>
        {
            var procedure = ProcedureFiles.Read(call, call.Get(file));
            var path = call.Get(into) ?? Path.ChangeExtension(call.Get(file), ".svg");
            File.WriteAllText(path, StepDrawing.Svg(procedure));
            call.Screen.Line($"{Screen.Safe(path)}: {procedure.Steps.Count} steps.");
            return Task.CompletedTask;
        });
    }
}
