using System.Text.Json;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Rebuilds;

namespace Nailcrow.Appliances.Redfish;

/// <summary>Makes a look of a machine's drives and volumes, keeping health, role and array state apart.</summary>
internal sealed class RedfishReading(Appliance appliance, DateTimeOffset now)
{
    private const string Source = "redfish";

    public MachineLook Of(IReadOnlyList<JsonElement> drives, IReadOnlyList<JsonElement> volumes, JsonElement chassis)
    {
        var arrays = volumes.Select(v => (Json: v, Array: Array(v, Name(v, volumes), drives))).ToList();
        if (InTwo(volumes) is { } twice)
            throw new RedfishException($"drive '{twice}' is a member of two arrays.");
        var bays = drives.Select(d => Bay(d, arrays)).OrderBy(b => b.Label.PadLeft(6, '0'), StringComparer.Ordinal).ToList();
        var snapshot = new Snapshot(now, Source, bays, [.. arrays.Select(a => a.Array)]);
        if (SnapshotProblems.In(snapshot).FirstOrDefault() is { } problem)
            throw new RedfishException(problem);
        return new(snapshot, [.. arrays.Select(a => Progress(a.Json, a.Array)).OfType<Reading>()], chassis.Flag("LocationIndicatorActive"));
    }

    /// <summary>A machine may name two arrays alike; then its own id of each tells them apart.</summary>
    private static string Name(JsonElement volume, IReadOnlyList<JsonElement> volumes)
    {
        var name = Named(volume);
        return volumes.Count(v => string.Equals(Named(v), name, StringComparison.OrdinalIgnoreCase)) == 1
            ? name
            : $"{name} ({volume.Required("Id")})";
    }

    private static string Named(JsonElement volume) => volume.Text("Name") ?? volume.Required("Id");

    private DriveArray Array(JsonElement volume, string name, IReadOnlyList<JsonElement> drives)
    {
        var designed = appliance.Arrays?.FirstOrDefault(a => a.Name == name);
        // The schema has no word for mixed sizes or k+m; where the array was set up as one, that is what it is.
        var level = designed?.Level ?? Level(volume.Text("RAIDType"), name);
        var members = drives.Where(d => Members(volume).Contains(d.Required("@odata.id"))).ToList();
        var memberBytes = designed?.MemberBytes ?? members.Select(d => d.Whole("CapacityBytes")).OfType<long>().DefaultIfEmpty(0).Min();
        var design = designed?.Members ?? FromCapacity(level, volume.Whole("CapacityBytes"), memberBytes) ?? members.Count;
        return new(name, level, design, State(volume), memberBytes > 0 ? memberBytes : null, designed?.Groups, designed?.Parity);
    }

    private static string? InTwo(IReadOnlyList<JsonElement> volumes) =>
        volumes.SelectMany(v => Members(v).Distinct()).GroupBy(path => path).FirstOrDefault(g => g.Count() > 1)?.Key;

    /// <summary>Members when whole, from usable capacity: n·min, min, (n-1)·min, (n-2)·min or (n/2)·min by level.</summary>
    private static int? FromCapacity(ArrayLevel level, long? usable, long member)
    {
        if (usable is not > 0 || member <= 0)
            return null;
        var data = (int)Math.Round((double)usable.Value / member);
        return level switch
        {
            ArrayLevel.Raid0 => data,
            ArrayLevel.Raid1 => null, // a mirror of two and of three have one capacity
            ArrayLevel.Raid5 => data + 1,
            ArrayLevel.Raid6 => data + 2,
            ArrayLevel.TripleParity => data + 3,
            ArrayLevel.Raid10 => data * 2,
            _ => null, // it depends on how many groups there are
        };
    }

    private static ArrayLevel Level(string? raidType, string name) =>
        raidType switch
        {
            "RAID0" => ArrayLevel.Raid0,
            "RAID1" => ArrayLevel.Raid1,
            "RAID5" => ArrayLevel.Raid5,
            "RAID6" => ArrayLevel.Raid6,
            "RAID10" or "RAID01" => ArrayLevel.Raid10,
            "RAID50" => ArrayLevel.Raid50,
            "RAID60" => ArrayLevel.Raid60,
            "RAID6TP" => ArrayLevel.TripleParity,
            _ => throw new RedfishException(
                $"array {name} has the level '{raidType ?? "none"}'; levels 0, 1, 5, 6, 10, 50, 60 and triple parity "
                    + "are understood, others where the appliance's record says how the array was set up."
            ),
        };

    private static ArrayState State(JsonElement volume)
    {
        if (Rebuilding(volume) is not null)
            return ArrayState.Rebuilding;
        var status = volume.Find("Status");
        return (status?.Text("Health"), status?.Text("State")) switch
        {
            ("Critical", _) or (_, "Disabled" or "UnavailableOffline") => ArrayState.Failed,
            ("OK", "Enabled") => ArrayState.Whole,
            _ => ArrayState.Degraded,
        };
    }

    private Bay Bay(JsonElement drive, List<(JsonElement Json, DriveArray Array)> arrays)
    {
        var place = drive.Find("PhysicalLocation")?.Find("PartLocation");
        var label =
            place?.Text("ServiceLabel")
            ?? place?.Whole("LocationOrdinalValue")?.ToString()
            ?? throw new RedfishException($"drive '{drive.Text("Id")}' does not say which bay it is in.");
        label = label.StartsWith("Bay ", StringComparison.OrdinalIgnoreCase) ? label[4..] : label;
        var name = drive.Text("Id");
        if (drive.Find("Status")?.Text("State") == "Absent")
            return new(label, BayRole.Empty, DriveHealth.Unknown, name);
        var (role, array) = Role(drive, arrays);
        return new(
            label,
            role,
            Health(drive),
            name,
            drive.Text("SerialNumber"),
            drive.Text("Model"),
            drive.Whole("CapacityBytes"),
            array?.Name,
            null,
            Signs(drive)
        );
    }

    private static (BayRole Role, DriveArray? Array) Role(JsonElement drive, List<(JsonElement Json, DriveArray Array)> arrays)
    {
        var path = drive.Required("@odata.id");
        foreach (var (volume, array) in arrays)
        {
            if (Members(volume).Contains(path))
                return (Rebuilding(drive) is null ? BayRole.Member : BayRole.Filling, array);
            if (volume.Find("Links")?.Links("DedicatedSpareDrives").Contains(path) == true)
                return (BayRole.Spare, array);
        }
        // The drive still names its volume, and the volume does not name the drive: it was thrown out.
        var named = drive.Find("Links")?.Links("Volumes") ?? [];
        if (arrays.Find(a => named.Contains(a.Json.Required("@odata.id"))) is { Array: { } left })
            return (BayRole.Dropped, left);
        return (drive.Text("HotspareType") is null or "None" ? BayRole.Unclaimed : BayRole.Spare, null);
    }

    private static IReadOnlyList<string> Members(JsonElement volume) => volume.Find("Links")?.Links("Drives") ?? [];

    private static DriveHealth Health(JsonElement drive) =>
        drive.Find("Status")?.Text("Health") switch
        {
            "Critical" => DriveHealth.Faulted,
            "Warning" => DriveHealth.Worn,
            "OK" when drive.Flag("FailurePredicted") == true => DriveHealth.Worn,
            "OK" => DriveHealth.Good,
            _ => DriveHealth.Unknown,
        };

    private static IReadOnlyList<string>? Signs(JsonElement drive)
    {
        var signs = drive.Find("Status")?.Items("Conditions").Select(c => c.Text("Message")).OfType<string>().ToList() ?? [];
        if (drive.Flag("FailurePredicted") == true)
            signs.Add("failure predicted");
        return signs.Count == 0 ? null : signs;
    }

    private static JsonElement? Rebuilding(JsonElement resource) =>
        resource.Items("Operations").Where(o => o.Text("OperationName") == "Rebuild").Cast<JsonElement?>().FirstOrDefault();

    private Reading? Progress(JsonElement volume, DriveArray array)
    {
        if (volume.Items("Operations") is not [var operation, ..])
            return null;
        RebuildPhase? phase = operation.Text("OperationName") switch
        {
            "Rebuild" => RebuildPhase.Rebuilding,
            "CheckConsistency" => RebuildPhase.Checking,
            "Initialize" or "Format" => RebuildPhase.Preparing,
            "Resize" or "ChangeRAIDType" => RebuildPhase.Growing,
            _ => null,
        };
        var percent = operation.Number("PercentageComplete");
        if (Reading.Problem(percent) is { } problem)
            throw new RedfishException(problem);
        return phase is { } known ? new(now, array.Name, Core.Rebuilds.Progress.Running, known, percent, Source) : null;
    }
}
