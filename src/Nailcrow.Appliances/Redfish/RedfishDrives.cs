using System.Text.Json;

namespace Nailcrow.Appliances.Redfish;

/// <summary>A drive, or the bay where one would be, with the names that are one's own in the whole machine.</summary>
/// <param name="Paths">Its resource's path, and those under which another controller shows it.</param>
/// <param name="Label">What is printed at its bay, behind the enclosure it is in.</param>
/// <param name="Name">What the machine's software calls it.</param>
/// <param name="Volumes">The paths of volumes it says it belongs to.</param>
internal sealed record RedfishDrive(
    JsonElement Json,
    IReadOnlyList<string> Paths,
    string Label,
    string? Name,
    IReadOnlyList<string> Volumes
)
{
    public string Path => Paths[0];
}

/// <summary>All drives of all storage units: what two of them show is one, and what they call alike is told apart.</summary>
internal static class RedfishDrives
{
    public static IReadOnlyList<RedfishDrive> Of(RedfishSurvey survey, RedfishEnclosures enclosures)
    {
        var shown = survey.Units.SelectMany(u => u.Drives.Select(d => new Shown(u, d, enclosures.Of(d), Printed(d)))).ToList();
        // Where the machine's own chassis holds none and one other holds all, that one is the machine.
        if (shown.Select(s => s.Enclosure).Distinct().ToList() is [not "" and var only] && !enclosures.IsWrittenDown(only))
            shown = [.. shown.Select(s => s with { Enclosure = "" })];
        var twice = shown.Where(s => s.Name is not null).GroupBy(s => s.Name).Where(g => g.Select(s => s.Unit).Distinct().Count() > 1);
        var ambiguous = twice.Select(g => g.Key).ToHashSet();
        // Two controllers may each show the same drive: of the same serial in the same bay there is one.
        var single = shown.GroupBy(s =>
            s.Drive.Text("SerialNumber") is { } serial ? $"{s.Enclosure}{s.Bay} {serial}" : s.Drive.Required("@odata.id")
        );
        var drives = single.Select(g => One([.. g], ambiguous)).ToList();
        return [.. drives.Select(d => d with { Label = Apart(d, drives) })];
    }

    private sealed record Shown(RedfishUnit Unit, JsonElement Drive, string Enclosure, string Bay)
    {
        public string? Name => Drive.Text("Id");
    }

    private static RedfishDrive One(IReadOnlyList<Shown> same, HashSet<string?> ambiguous)
    {
        var first = same[0];
        return new(
            first.Drive,
            [.. same.Select(s => s.Drive.Required("@odata.id"))],
            first.Enclosure + first.Bay,
            same.Count == 1 && ambiguous.Contains(first.Name) ? $"{first.Unit.Id}/{first.Name}" : first.Name,
            [.. same.SelectMany(s => s.Drive.Find("Links")?.Links("Volumes") ?? []).Distinct()]
        );
    }

    private static string Printed(JsonElement drive)
    {
        var place = drive.Find("PhysicalLocation")?.Find("PartLocation");
        var label =
            place?.Text("ServiceLabel")
            ?? place?.Whole("LocationOrdinalValue")?.ToString()
            ?? throw new RedfishException($"drive '{drive.Text("Id")}' does not say which bay it is in.");
        return label.StartsWith("Bay ", StringComparison.OrdinalIgnoreCase) ? label[4..] : label;
    }

    /// <summary>Bay 1 at the front and bay 1 at the rear: the machine says on which side, or at least what it calls each.</summary>
    private static string Apart(RedfishDrive drive, IReadOnlyList<RedfishDrive> all)
    {
        var alike = all.Where(d => string.Equals(d.Label, drive.Label, StringComparison.OrdinalIgnoreCase)).ToList();
        if (alike.Count == 1)
            return drive.Label;
        return alike.Select(Side).Distinct().Count() == alike.Count && Side(drive) is { } side
            ? $"{side} {drive.Label}"
            : $"{drive.Label} ({drive.Name})";
    }

    private static string? Side(RedfishDrive drive) => drive.Json.Find("PhysicalLocation")?.Find("PartLocation")?.Text("Reference");
}
