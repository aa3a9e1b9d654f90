using System.Text.Json;

namespace Nailcrow.Appliances.Redfish;

/// <summary>One storage unit of a machine: its drives and volumes.</summary>
internal sealed record RedfishUnit(string Id, IReadOnlyList<JsonElement> Drives, IReadOnlyList<JsonElement> Volumes);

/// <summary>Everything of a machine that says something of its drives: every chassis, system, storage unit and volume.</summary>
/// <param name="AllVolumes">
/// False where a storage unit or a volume could not be read: a drive that no other volume names may belong to one of those, whoever lists it.
/// </param>
internal sealed record RedfishSurvey(IReadOnlyList<JsonElement> Chassis, IReadOnlyList<RedfishUnit> Units, bool AllVolumes)
{
    /// <exception cref="RedfishException">It has none, or nothing of it can be read.</exception>
    public static async Task<RedfishSurvey> OfAsync(RedfishMachine machine, RedfishNotes notes, CancellationToken ct)
    {
        var chassis = await notes.StepAsync("Its chassis", () => ChassisAsync(machine, ct), RedfishNotes.Chassis);
        var before = machine.Gaps.Count;
        var storages = await notes.StepAsync("Its storage units", () => StoragesAsync(machine, ct), RedfishNotes.Storages);
        var allVolumes = machine.Gaps.Count == before;
        var units = new List<RedfishUnit>();
        var named = new HashSet<string>(StringComparer.Ordinal);
        foreach (var storage in storages)
        {
            var id = storage.Text("Id") ?? storage.Required("@odata.id");
            var drives = await notes.StepAsync(
                $"Drives of storage unit {id}",
                async () => await DrivesAsync(machine, [.. storage.Links("Drives").Where(named.Add)], ct),
                RedfishNotes.Drives
            );
            before = machine.Gaps.Count;
            var volumes = await notes.StepAsync(
                $"Volumes of storage unit {id}",
                () => VolumesAsync(machine, storage, ct),
                RedfishNotes.Volumes
            );
            allVolumes &= machine.Gaps.Count == before;
            units.Add(new(id, drives, volumes));
        }
        // Enclosures list drives that belong to no storage unit, such as those of a controller that is gone.
        foreach (var one in chassis)
        {
            var others = await notes.StepAsync(
                $"Other drives in chassis {one.Text("Id")}",
                () => OthersAsync(machine, one, named, ct),
                RedfishNotes.Drives
            );
            if (others.Count > 0)
                units.Add(new(one.Text("Id") ?? "", others, []));
        }
        if (units.TrueForAll(u => u.Drives.Count == 0))
            throw new RedfishException(
                machine.Gaps is [var first, ..] ? $"none of its drives could be read; {first}" : "it shows no drives at all."
            );
        return new(chassis, units, allVolumes);
    }

    private static async Task<IReadOnlyList<JsonElement>> ChassisAsync(RedfishMachine machine, CancellationToken ct)
    {
        var chassis = await machine.MembersAsync(machine.LinkOf("Chassis"), ct);
        return chassis.Count > 0 ? chassis : throw new RedfishException("it shows no chassis.");
    }

    /// <summary>Those of every system, and those that stand beside systems; one that two name is one.</summary>
    private static async Task<IReadOnlyList<JsonElement>> StoragesAsync(RedfishMachine machine, CancellationToken ct)
    {
        var found = new List<JsonElement>();
        if (machine.Root.Find("Systems") is not null)
            foreach (var system in await machine.MembersAsync(machine.LinkOf("Systems"), ct))
                if (system.Find("Storage")?.Text("@odata.id") is { } its)
                    found.AddRange(await TryMembersAsync(machine, its, ct));
        if (machine.Root.Find("Storage")?.Text("@odata.id") is { } alone)
            found.AddRange(await TryMembersAsync(machine, alone, ct));
        return [.. found.DistinctBy(s => s.Required("@odata.id"))];
    }

    private static async Task<IReadOnlyList<JsonElement>> DrivesAsync(RedfishMachine machine, string[] paths, CancellationToken ct) =>
        [.. (await machine.ReadAllAsync(paths, ct)).Select(r => r.Resource)];

    /// <summary>None where it passes its drives on as they are.</summary>
    private static async Task<IReadOnlyList<JsonElement>> VolumesAsync(RedfishMachine machine, JsonElement storage, CancellationToken ct) =>
        storage.Find("Volumes")?.Text("@odata.id") is { } path ? await TryMembersAsync(machine, path, ct) : [];

    private static async Task<IReadOnlyList<JsonElement>> OthersAsync(
        RedfishMachine machine,
        JsonElement chassis,
        HashSet<string> named,
        CancellationToken ct
    )
    {
        var paths = (chassis.Find("Links")?.Links("Drives") ?? []).ToList();
        if (chassis.Find("Drives")?.Text("@odata.id") is { } list && await machine.TryReadAsync(list, ct) is { } collection)
            paths.AddRange(collection.Links("Members"));
        return await DrivesAsync(machine, [.. paths.Where(named.Add)], ct);
    }

    /// <returns>None where the list itself could not be read, which is a gap.</returns>
    private static async Task<IReadOnlyList<JsonElement>> TryMembersAsync(RedfishMachine machine, string collection, CancellationToken ct)
    {
        try
        {
            return await machine.MembersAsync(collection, ct);
        }
        catch (Exception e) when (RedfishMachine.OfOneResource(e) is { } why)
        {
            machine.Missed($"'{collection}' {why}");
            return [];
        }
    }
}
