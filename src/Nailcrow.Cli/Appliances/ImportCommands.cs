using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;

namespace Nailcrow.Cli.Appliances;

/// <summary>Lists in and out as CSV.</summary>
internal static class ImportCommands
{
    private static Argument<string> Kind() => Said.Text("KIND", "customers, sites, appliances, drives or qualified.");

    public static Command Import()
    {
        var (kind, file) = (Kind(), Said.Text("FILE", "A CSV file whose first line names the columns."));
        var write = new Option<bool>("--write") { Description = "Bring the good rows in. Without it the file is only checked." };
        var all = new Option<bool>("--all-or-nothing") { Description = "With --write: one bad row, and nothing is brought in." };
        return new Command("import", "Check a list row by row, and bring it in with --write.") { kind, file, write, all }.Does(async call =>
        {
            await using var stream = File.OpenRead(call.Get(file));
            var done = await call.Client.ImportAsync(call.Get(kind), stream, !call.Get(write), call.Get(all), call.Ct);
            call.Show(
                done,
                ContractJson.Default.ImportResult,
                screen =>
                {
                    foreach (var problem in done.Problems)
                        screen.Line($"  line {problem.Line}: {Screen.Safe(problem.Reason)}");
                    if (done.Bad > done.Problems.Count)
                        screen.Line($"  [dim]and {done.Bad - done.Problems.Count} more[/]");
                    screen.Line(
                        $"{done.Rows} rows: {done.Good} good, {done.Bad} bad, {done.Imported} brought "
                            + $"in.{(done.DryRun ? " Nothing was changed; --write brings the good ones in." : "")}"
                    );
                }
            );
            if (done is { DryRun: false, Imported: 0, Rows: > 0 })
                throw new Refusal("Nothing was brought in.");
        });
    }

    public static Command Export()
    {
        var kind = Kind();
        var file = new Argument<string?>("FILE")
        {
            Description = "Where to put it; must not exist yet. Default: the output.",
            Arity = ArgumentArity.ZeroOrOne,
            DefaultValueFactory = _ => null,
        };
        return new Command("export", "Write a list in the columns it is imported by.") { kind, file }.Does(async call =>
        {
            if (call.Get(file) is { } there && File.Exists(there))
                throw new UsageProblem($"{Path.GetFullPath(there)} exists already; name another file.");
            using var whole = new MemoryStream();
            await call.Client.ExportAsync(call.Get(kind), whole, call.Ct);
            if (call.Get(file) is { } path)
            {
                await File.WriteAllBytesAsync(path, whole.ToArray(), call.Ct);
                call.Screen.Line($"{Screen.Safe(path)}: {whole.Length:N0} bytes.");
            }
            else if (call.Screen.IsPiped) // byte for byte, so that it can be brought in again
                await Console.OpenStandardOutput().WriteAsync(whole.ToArray(), call.Ct);
            else
                call.Screen.Plain(System.Text.Encoding.UTF8.GetString(whole.ToArray()));
        });
    }
}
