using System.Text.Json;

namespace Nailcrow.Appliances.Redfish;

/// <summary>A volume that is kept on drives, by a name of its own.</summary>
/// <param name="Paths">Its resource's path, and those under which another controller shows it.</param>
/// <param name="Members">Its drives, by the path each is known by here.</param>
internal sealed record RedfishVolume(
    JsonElement Json,
    string Name,
    IReadOnlySet<string> Paths,
    IReadOnlySet<string> Members,
    IReadOnlySet<string> Spares
);

/// <summary>All volumes of all storage units: what two of them show is one, and what they call alike is told apart.</summary>
internal static class RedfishVolumes
{
    public static IReadOnlyList<RedfishVolume> Of(RedfishSurvey survey, IReadOnlyList<RedfishDrive> drives)
    {
        var known = Known(drives);
        // A controller that passes drives on as they are may call each a volume of no kind: no array keeps anything on it.
        var shown = survey
            .Units.SelectMany(u => u.Volumes.Where(v => v.Text("RAIDType") != "None").Select(v => One(u, v, drives, known)))
            .ToList();
        var single = shown
            .GroupBy(s => (Named(s.Volume.Json).ToUpperInvariant(), string.Join(' ', s.Volume.Members.Order(StringComparer.Ordinal))))
            .SelectMany(g => g.Key.Item2.Length > 0 ? [Merged([.. g])] : g.AsEnumerable())
            .ToList();
        return [.. single.Select(s => s.Volume with { Name = Name(s, single) })];
    }

    /// <summary>By each path that a drive is shown under, the one it is known by here.</summary>
    private static Dictionary<string, string> Known(IReadOnlyList<RedfishDrive> drives)
    {
        var paths = drives.SelectMany(d => d.Paths.Distinct().Select(path => (Path: path, Drive: d.Path))).ToList();
        return paths.CountBy(p => p.Path).FirstOrDefault(c => c.Value > 1).Key is { } shared
            ? throw new RedfishException($"two drives have one address, '{shared}'; which of them is in which array cannot be told.")
            : paths.ToDictionary(p => p.Path, p => p.Drive);
    }

    private sealed record Shown(RedfishUnit Unit, RedfishVolume Volume);

    private static Shown Merged(IReadOnlyList<Shown> same) =>
        same[0] with
        {
            Volume = same[0].Volume with { Paths = same.SelectMany(s => s.Volume.Paths).ToHashSet() },
        };

    private static Shown One(RedfishUnit unit, JsonElement volume, IReadOnlyList<RedfishDrive> drives, Dictionary<string, string> known)
    {
        var path = volume.Required("@odata.id");
        // Some only say it the other way round: each drive names the volumes it is of.
        var members = volume.Find("Links")?.Find("Drives") is not null
            ? volume.Find("Links")?.Links("Drives") ?? []
            : [.. drives.Where(d => d.Volumes.Contains(path)).Select(d => d.Path)];
        return new(
            unit,
            new(
                volume,
                Named(volume),
                new HashSet<string> { path },
                members.Select(Known).ToHashSet(),
                (volume.Find("Links")?.Links("DedicatedSpareDrives") ?? []).Select(Known).ToHashSet()
            )
        );

        string Known(string drive) => known.GetValueOrDefault(drive, drive);
    }

    /// <summary>A machine may name two arrays alike; then its own id of each tells them apart, and that of its storage unit where needed.</summary>
    private static string Name(Shown shown, IReadOnlyList<Shown> all)
    {
        var alike = all.Where(s => string.Equals(Named(s.Volume.Json), Named(shown.Volume.Json), StringComparison.OrdinalIgnoreCase))
            .ToList();
        if (alike.Count == 1)
            return shown.Volume.Name;
        var id = shown.Volume.Json.Required("Id");
        return alike.Count(s => s.Volume.Json.Required("Id") == id) == 1
            ? $"{shown.Volume.Name} ({id})"
            : $"{shown.Volume.Name} ({shown.Unit.Id}/{id})";
    }

    private static string Named(JsonElement volume) => volume.Text("Name") ?? volume.Required("Id");
}
