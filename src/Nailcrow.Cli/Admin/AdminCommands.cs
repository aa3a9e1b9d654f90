using System.CommandLine;
using System.Globalization;
using System.Text.Json;
using Nailcrow.Cli.People;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Admin;
using Nailcrow.Core.Intake;

namespace Nailcrow.Cli.Admin;

internal static class AdminCommands
{
    public static Command Build() =>
        new("admin", "Care of what is kept.")
        {
            Load(),
            VerifyCommand.Build(),
            Seal(),
            Rebuild(),
            Backup(),
            Nodes(),
            SecurityCommand.Build(),
        };

    private static Command Load()
    {
        var file = Said.Text("FILE", "Models, sites and appliances as JSON; demo/reference.json is one.");
        return new Command("load", "Load models, sites and appliances: all of a file or nothing of it.") { file }.Does(async call =>
        {
            var data = Read(call.Get(file));
            var loaded = await call.Client.LoadAsync(data, call.Ct);
            call.Show(
                loaded,
                ContractJson.Default.Loaded,
                screen => screen.Line($"Loaded {loaded.Models} models, {loaded.Sites} sites and {loaded.Appliances} appliances.")
            );
        });
    }

    private static Command Seal()
    {
        var into = Said.Optional("--into", "Also write it here, to be sent or copied elsewhere.", "FILE");
        return new Command("seal", "Sign over everything written until now; kept beside the database, to be copied elsewhere.")
        {
            into,
        }.Does(async call =>
        {
            var made = await call.Client.SealAsync(call.Ct);
            if (call.Get(into) is { } file)
                await NewFiles.WriteAsync(file, made.Text, call.Ct);
            call.Show(
                made,
                ContractJson.Default.SealMade,
                screen =>
                {
                    screen.Line($"Seal {made.Number} covers {made.Entries} entries: {Screen.Safe(made.File)}");
                    screen.Line($"Signed by the key {Screen.Safe(made.Fingerprint)}.");
                    screen.Line("[dim]Keep the seal where nobody who has the database can reach it, and the key's number on paper.[/]");
                }
            );
        });
    }

    private static Command Rebuild() =>
        new Command("rebuild-projections", "Throw the lists away and make them again from the journal.").Does(async call =>
        {
            var rebuilt = await call.Client.RebuildProjectionsAsync(call.Ct);
            call.Show(
                rebuilt,
                ContractJson.Default.Rebuilt,
                screen => screen.Line($"Lists made again from the journals of {rebuilt.Tickets} tickets.")
            );
        });

    // Three renewals that did not come: something keeps it from the database, or it stands still.
    private const double SilentSeconds = 6;

    private static Command Nodes() =>
        new Command("nodes", "The services that work on this record, and what each of them does over time for all.").Does(async call =>
        {
            var list = await call.Client.NodesAsync(call.Ct);
            call.Show(
                list,
                ContractJson.Default.NodeList,
                screen => screen.Table(["node", "release", "since", "heard of", "does"], list.Nodes.Select(Row))
            );
        });

    private static string[] Row(NodeView node) =>
        [
            Screen.Safe(node.Name) + (node.Answered ? " [dim](this one)[/]" : ""),
            Screen.Safe(node.Release),
            node.Since.UtcDateTime.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture) + "Z",
            node.SilentSeconds < SilentSeconds
                ? "now"
                : $"[red]silent for {node.SilentSeconds.ToString("0", CultureInfo.InvariantCulture)} s[/]",
            node.TakesNoPart is { } why ? $"[red]nothing: {Screen.Safe(why)}[/]"
            : node.Does.Count == 0 ? "nothing over time"
            : string.Join(", ", node.Does.Select(d => Screen.Safe(d.Replace('-', ' ')))),
        ];

    private static Command Backup()
    {
        var file = Said.Text("FILE", "Where to put it; must not exist yet.");
        var keys = new Option<bool>("--with-keys")
        {
            Description = "Put the service's keys in as well; whoever reads the file can then act as the service.",
        };
        return new Command(
            "backup",
            "All that is needed to go on elsewhere, as of one moment, while the service runs. 'nailcrow-service restore FILE' puts it back."
        )
        {
            file,
            keys,
        }.Does(async call =>
        {
            var path = Path.GetFullPath(call.Get(file));
            if (File.Exists(path))
                throw new UsageProblem($"{path} exists already; a backup never overwrites. Name another file.");
            var draft = path + ".part";
            await using (var stream = NewFiles.Own(draft))
                await call.Client.BackupAsync(stream, call.Get(keys), call.Ct);
            File.Move(draft, path);
            call.Screen.Line($"{Screen.Safe(path)}: {new FileInfo(path).Length:N0} bytes.");
            call.Screen.Line(
                call.Get(keys)
                    ? "The service's keys are in it: keep it as you keep the machine."
                    : "The service's keys are not in it: restored without them, people sign in anew and secrets of event "
                        + "senders, carriers and makers are given anew. --with-keys puts them in."
            );
        });
    }

    private static ReferenceData Read(string path)
    {
        try
        {
            return JsonSerializer.Deserialize(File.ReadAllText(path), ContractJson.Default.ReferenceData)
                ?? throw new UsageProblem($"{path} holds nothing.");
        }
        catch (JsonException e)
        {
            throw new UsageProblem(
                $"{path}:{e.LineNumber + 1}:{e.BytePositionInLine + 1}: at {e.Path}, this is not what a reference file "
                    + "holds. demo/reference.json shows the form."
            );
        }
    }
}
