using System.Text.Json;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Redfish;

/// <summary>Makes a look of a machine's drives and volumes, keeping health, role and array state apart.</summary>
internal sealed class RedfishReading(Appliance appliance, DateTimeOffset now)
{
    private const string Source = "redfish";
    private const int LongestWord = 60;

    /// <param name="machine">It is told what no sense can be made of.</param>
    public MachineLook Of(RedfishSurvey survey, RedfishMachine machine)
    {
        var enclosures = new RedfishEnclosures(appliance, survey.Chassis);
        if (enclosures.TakenOnTrust)
            machine.Missed(
                $"It tells no serial of its own: that it is {appliance.Asset} ({appliance.Serial}) is taken from its address alone."
            );
        var drives = RedfishDrives.Of(survey, enclosures);
        var volumes = RedfishVolumes.Of(survey, drives);
        if (InTwo(volumes) is { } twice)
            throw new RedfishException($"drive '{twice}' is a member of two arrays.");
        var arrays = volumes.Select(v => (Of: v, Array: Array(v, drives, machine)!)).Where(a => a.Array is not null).ToList();
        var bays = drives
            .Select(d => Bay(d, arrays, survey.AllVolumes && arrays.Count == volumes.Count))
            .OrderBy(b => b.Label.PadLeft(6, '0'), StringComparer.Ordinal)
            .ToList();
        var gaps = machine.GapsTold;
        var snapshot = new Snapshot(now, Source, bays, [.. arrays.Select(a => a.Array)], gaps.Count == 0 ? null : gaps);
        if (SnapshotProblems.In(snapshot).FirstOrDefault() is { } problem)
            throw new RedfishException(problem);
        return new(
            snapshot,
            [.. arrays.Select(a => Progress(a.Of.Json, a.Array)).OfType<Reading>()],
            enclosures.Itself.Flag("LocationIndicatorActive")
        );
    }

    /// <returns>
    /// Null where nobody here knows its kind: what it can spare is not guessed, its drives are not known, and the rest is read.
    /// </returns>
    private DriveArray? Array(RedfishVolume of, IReadOnlyList<RedfishDrive> drives, RedfishMachine machine)
    {
        var (volume, name) = (of.Json, of.Name);
        var designed = appliance.Arrays?.FirstOrDefault(a => a.Name == name);
        // The schema has no word for mixed sizes or k+m; where the array was set up as one, that is what it is.
        if ((designed?.Level ?? Level(volume.Text("RAIDType"))) is not { } level)
        {
            machine.Missed(
                $"Array {Shortened.To(name, LongestWord)} has the level '{Shortened.To(volume.Text("RAIDType") ?? "none", LongestWord)}'; 0, "
                    + "1, 5, 6, 10, 50, 60 and triple parity are understood, others where the appliance's record says how it was set up."
            );
            return null;
        }
        var members = drives.Where(d => of.Members.Contains(d.Path)).Select(d => d.Json).ToList();
        var memberBytes = designed?.MemberBytes ?? members.Select(d => d.Whole("CapacityBytes")).OfType<long>().DefaultIfEmpty(0).Min();
        var design = designed?.Members ?? FromCapacity(level, volume.Whole("CapacityBytes"), memberBytes) ?? members.Count;
        return new(name, level, design, State(volume), memberBytes > 0 ? memberBytes : null, designed?.Groups, designed?.Parity);
    }

    private static string? InTwo(IReadOnlyList<RedfishVolume> volumes) =>
        volumes.SelectMany(v => v.Members).GroupBy(path => path).FirstOrDefault(g => g.Count() > 1)?.Key;

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

    private static ArrayLevel? Level(string? raidType) =>
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
            _ => null,
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

    private static Bay Bay(RedfishDrive of, List<(RedfishVolume Of, DriveArray Array)> arrays, bool allVolumes)
    {
        var drive = of.Json;
        if (drive.Find("Status")?.Text("State") == "Absent")
            return new(of.Label, BayRole.Empty, DriveHealth.Unknown, of.Name);
        var (role, array) = Role(of, arrays, allVolumes);
        return new(
            of.Label,
            role,
            Health(drive),
            of.Name,
            drive.Text("SerialNumber"),
            drive.Text("Model"),
            drive.Whole("CapacityBytes"),
            array?.Name,
            null,
            Signs(drive)
        );
    }

    private static (BayRole Role, DriveArray? Array) Role(
        RedfishDrive drive,
        List<(RedfishVolume Of, DriveArray Array)> arrays,
        bool allVolumes
    )
    {
        foreach (var (volume, array) in arrays)
        {
            if (volume.Members.Contains(drive.Path))
                return (Rebuilding(drive.Json) is null ? BayRole.Member : BayRole.Filling, array);
            if (volume.Spares.Contains(drive.Path))
                return (BayRole.Spare, array);
        }
        // The drive still names its volume, and the volume does not name the drive: it was thrown out.
        if (arrays.Find(a => drive.Volumes.Any(a.Of.Paths.Contains)) is { Array: { } left })
            return (BayRole.Dropped, left);
        if (drive.Json.Text("HotspareType") is not (null or "None"))
            return (BayRole.Spare, null);
        // Where a volume could not be read, a drive that no other one names may be that one's.
        return (allVolumes ? BayRole.Unclaimed : BayRole.NotKnown, null);
    }

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
        if (
            volume.Items("Operations").FirstOrDefault(o => o.ValueKind == JsonValueKind.Object)
            is not { ValueKind: JsonValueKind.Object } operation
        )
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
