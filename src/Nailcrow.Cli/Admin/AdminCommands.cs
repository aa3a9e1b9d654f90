using System.CommandLine;
using System.Text.Json;
using Nailcrow.Cli.Shell;
using Nailcrow.Client;

namespace Nailcrow.Cli.Admin;

internal static class AdminCommands
{
    public static Command Build() => new("admin", "Care of what is kept.") { Load(), Verify(), Rebuild(), Backup() };

    private static Command Load()
    {
        var file = Said.Text("FILE", "Models, sites and appliances as JSON; demo/reference.json is one.");
        return new Command("load", "Load models, sites and appliances: all of a file or nothing of it.") { file }.Does(async call =>
        {
            var data = Read(call.Get(file));
            var loaded = await call.Client.LoadAsync(data, call.Ct);
            call.Show(loaded, ContractJson.Default.Loaded, screen => screen.Line($"Loaded {loaded.Models} models, {loaded.Sites} sites and {loaded.Appliances} appliances."));
        });
    }

    private static Command Verify() =>
        new Command("verify", "Compute every ticket's chain of entries again, and name the first that was changed.").Does(async call =>
        {
            var found = await call.Client.VerifyAsync(call.Ct);
            call.Show(found, ContractJson.Default.Verified, screen =>
            {
                if (found.FirstBad is null)
                    screen.Line($"All {found.Entries} entries of {found.Tickets} tickets are as they were written.");
            });
            if (found.FirstBad is { } bad)
                throw new Refusal($"The record was changed. First bad entry: {bad}");
        });

    private static Command Rebuild() =>
        new Command("rebuild-projections", "Throw the lists away and make them again from the journal.").Does(async call =>
        {
            var rebuilt = await call.Client.RebuildProjectionsAsync(call.Ct);
            call.Show(rebuilt, ContractJson.Default.Rebuilt, screen => screen.Line($"Lists made again from the journals of {rebuilt.Tickets} tickets."));
        });

    private static Command Backup()
    {
        var file = Said.Text("FILE", "Where to put the copy; must not exist yet.");
        return new Command("backup", "Copy the database as of one moment, while the service runs.") { file }.Does(async call =>
        {
            var path = Path.GetFullPath(call.Get(file));
            if (File.Exists(path))
                throw new UsageProblem($"{path} exists already; a backup never overwrites. Name another file.");
            var draft = path + ".part";
            await using (var stream = File.Create(draft))
                await call.Client.BackupAsync(stream, call.Ct);
            File.Move(draft, path);
            call.Screen.Line($"{Screen.Safe(path)}: {new FileInfo(path).Length:N0} bytes.");
        });
    }

    private static Core.Appliances.ReferenceData Read(string path)
    {
        try
        {
            return JsonSerializer.Deserialize(File.ReadAllText(path), ContractJson.Default.ReferenceData) ?? throw new UsageProblem($"{path} holds nothing.");
        }
        catch (JsonException e)
        {
            throw new UsageProblem($"{path}:{e.LineNumber + 1}:{e.BytePositionInLine + 1}: at {e.Path}, this is not what a reference file holds. demo/reference.json shows the form.");
        }
    }
}
