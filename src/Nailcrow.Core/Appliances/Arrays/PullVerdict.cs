using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances.Arrays;

[JsonConverter(typeof(KebabEnum<PullVerdict>))]
public enum PullVerdict
{
    Safe,
    Thins,
    Fatal,

    /// <summary>Too little is known to say; nobody pulls on it without a lead's word.</summary>
    NotKnown,
}

/// <summary>What pulling the drive in this bay now would do, with the reason in a sentence.</summary>
public sealed record BayVerdict(string Bay, PullVerdict Verdict, string Reason)
{
    /// <summary>Nobody pulls on it without a lead's word.</summary>
    public bool NeedsALead() => Verdict is PullVerdict.Fatal or PullVerdict.NotKnown;

    /// <summary>Each array's members are gathered once, so that a large chassis costs what its bays cost.</summary>
    public static IReadOnlyList<BayVerdict> ForAll(Snapshot snapshot)
    {
        var seen = new Sight(snapshot);
        return [.. snapshot.Bays.Select(seen.Of)];
    }

    public static BayVerdict For(Snapshot snapshot, Bay bay) => new Sight(snapshot).Of(bay);

    internal static string Drives(int count) =>
        count == 0 ? "no drive"
        : count == 1 ? "one drive"
        : $"{count} drives";

    /// <summary>A snapshot with how each of its arrays stands.</summary>
    private sealed class Sight(Snapshot snapshot)
    {
        private readonly IReadOnlyDictionary<string, Standing> _standing = Standing.OfAll(snapshot);
        private readonly Dictionary<string, DriveArray> _arrays = snapshot.Arrays.ToDictionary(a => a.Name);

        public BayVerdict Of(Bay bay)
        {
            var (verdict, reason) = bay.Role switch
            {
                BayRole.Empty => (PullVerdict.Safe, "Nothing is in this bay."),
                BayRole.NotKnown => (PullVerdict.NotKnown, "Nobody has said what this bay holds."),
                BayRole.Member => bay.Array is { } name && _standing.TryGetValue(name, out var standing)
                    ? OfMember(_arrays[name], standing, bay)
                    : (PullVerdict.NotKnown, "A member of an array that nobody has named."),
                BayRole.Foreign => (
                    PullVerdict.NotKnown,
                    "Carries another array's data: after a controller was exchanged that is this machine's own. Call before it is pulled."
                ),
                BayRole.Spare => (PullVerdict.Safe, "A spare holds no data; the arrays it stands by for would be without it."),
                _ when Lost(bay) is { } lost => (
                    PullVerdict.NotKnown,
                    $"{lost} has lost more than it can bear, and this drive may be what brings its data back. Call before it is pulled."
                ),
                BayRole.Filling => (PullVerdict.Safe, $"{bay.Array} does not count on this drive yet, but its rebuild would start over."),
                BayRole.Dropped => (PullVerdict.Safe, $"{bay.Array ?? "The array"} has already dropped this drive and runs without it."),
                _ => (PullVerdict.Safe, "Belongs to no array here."),
            };
            return new(bay.Label, verdict, reason);
        }

        /// <summary>The array that has lost data and that this drive may belong to; null where none.</summary>
        private string? Lost(Bay bay) =>
            bay.Array is { } name && _standing.TryGetValue(name, out var its)
                ? its.IsLost
                    ? name
                    : null
                : _standing.FirstOrDefault(s => s.Value.IsLost).Key;

        private static (PullVerdict, string) OfMember(DriveArray array, Standing standing, Bay bay)
        {
            if (standing.IsLost)
                return (PullVerdict.Fatal, $"{array.Name} has already lost data; pulling more takes away what a recovery could use.");
            var after = standing.Without(bay);
            if (after.Best < 0)
                return (
                    PullVerdict.Fatal,
                    Redundancy.Of(array).Bears == 0
                        ? $"{array.Name} has no redundancy: any member out loses its data."
                        : $"{array.Name} cannot lose this member: its data would be lost."
                );
            if (after.Worst < 0)
                return (
                    PullVerdict.NotKnown,
                    $"Whether {array.Name} can lose this member is not known. {string.Join(" ", standing.Doubts)}".TrimEnd()
                );
            return (
                PullVerdict.Thins,
                Standing.Serves(bay)
                    ? $"{array.Name} survives, but could then lose {Drives(after.Worst)} more."
                    : $"{array.Name} does not count on this drive, which has failed; it could then lose {Drives(after.Worst)} more."
            );
        }
    }
}
