using Nailcrow.Client;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;

namespace Nailcrow.Running;

/// <summary>
/// The folder of a service that has people of every role and the demo's models and sites, and was stopped. A service makes it once
/// in a run, over its interface; every other begins with a copy, as from a backup. Half of a run's time was the same passwords.
/// </summary>
internal static class PeopledFolder
{
    private static readonly (string Name, Role Role)[] People =
    [
        ("ilka", Role.Engineer),
        ("tamsel", Role.Engineer),
        ("dorrik", Role.Dispatcher),
        ("sefa", Role.Stores),
        ("lioth", Role.Lead),
    ];

    private static readonly Lazy<Task<string>> Made = new(MakeAsync);

    /// <summary>A new folder with what lies in the one that was made.</summary>
    public static async Task<string> CopyAsync()
    {
        var made = await Made.Value;
        var copy = Directory.CreateTempSubdirectory("nailcrow-").FullName;
        foreach (var file in Directory.EnumerateFiles(made, "*", SearchOption.AllDirectories))
        {
            var to = Path.Combine(copy, Path.GetRelativePath(made, file));
            Directory.CreateDirectory(Path.GetDirectoryName(to)!); // a file in a folder has one
            File.Copy(file, to);
        }
        await PostgresServer.CopyAsync(made, copy);
        return copy;
    }

    /// <summary>Adds the people and what the demo knows of machines and sites, as an admin does on a first day.</summary>
    public static async Task FillAsync(RunningService service)
    {
        var admin = await service.SignInAsync("admin");
        foreach (var (name, role) in People)
            await service.LetInAsync(name, role);
        await admin.LoadAsync(Reference(), CancellationToken.None);
    }

    /// <summary>The one appliance that may be reached is at this address now.</summary>
    public static async Task ReachAsync(RunningService service, Uri machine)
    {
        var all = Reference();
        var reached = all.Appliances.Single(a => a.Asset == "FSC-0107") with { Address = machine.ToString().TrimEnd('/') };
        await (await service.SignInAsync("admin")).LoadAsync(new([], [], [reached]), CancellationToken.None);
    }

    private static async Task<string> MakeAsync()
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-peopled-").FullName;
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(folder, recursive: true);
        await using var service = await RunningService.StartAsync(folder);
        await FillAsync(service);
        await service.Process.StopAsync();
        return folder;
    }

    private static ReferenceData Reference()
    {
        var demo =
            System.Text.Json.JsonSerializer.Deserialize(
                File.ReadAllText(Path.Combine(Built.Root, "demo", "reference.json")),
                ContractJson.Default.ReferenceData
            ) ?? throw new InvalidDataException("demo/reference.json is empty.");
        return demo with { Appliances = [.. demo.Appliances.Select(a => a with { Address = null })] };
    }
}
