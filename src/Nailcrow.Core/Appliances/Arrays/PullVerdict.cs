using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances.Arrays;

[JsonConverter(typeof(KebabEnum<PullVerdict>))]
public enum PullVerdict
{
    Safe,
    Thins,
    Fatal,
}

/// <summary>What pulling the drive in this bay now would do, with the reason in a sentence.</summary>
public sealed record BayVerdict(string Bay, PullVerdict Verdict, string Reason)
{
    /// <summary>Each array's members are gathered once, so that a large chassis costs what its bays cost.</summary>
    public static IReadOnlyList<BayVerdict> ForAll(Snapshot snapshot)
    {
        var arrays = snapshot.Arrays.ToDictionary(a => a.Name);
        var members = snapshot
            .Bays.Where(b => b.Role == BayRole.Member && b.Array is not null)
            .GroupBy(b => b.Array)
            .ToDictionary(g => g.Key!, IReadOnlyList<Bay> (g) => [.. g]); // Where saw that it has one
        var before = arrays.Values.ToDictionary(a => a.Name, a => Margin.Of(a, members.GetValueOrDefault(a.Name) ?? []));
        return
        [
            .. snapshot.Bays.Select(b =>
                b is { Role: BayRole.Member, Array: { } name } && arrays.TryGetValue(name, out var array)
                    ? OfMember(array, members[name], before[name], b)
                    : new(b.Label, PullVerdict.Safe, WithoutRedundancyAtStake(b))
            ),
        ];
    }

    public static BayVerdict For(Snapshot snapshot, Bay bay) =>
        snapshot.ArrayOf(bay) is { } array && bay.Role == BayRole.Member
            ? OfMember(array, [.. snapshot.Holding(array).Where(b => b.Role == BayRole.Member)], Margin.Of(snapshot, array), bay)
            : new(bay.Label, PullVerdict.Safe, WithoutRedundancyAtStake(bay));

    private static BayVerdict OfMember(DriveArray array, IReadOnlyList<Bay> members, int before, Bay bay)
    {
        if (before < 0)
            return new(
                bay.Label,
                PullVerdict.Fatal,
                $"{array.Name} has already lost data; pulling more takes away what a recovery could use."
            );
        var after = Margin.Without(array, members, [bay]);
        if (after < 0)
            return new(
                bay.Label,
                PullVerdict.Fatal,
                Redundancy.Of(array).Bears == 0
                    ? $"{array.Name} has no redundancy: any member out loses its data."
                    : $"{array.Name} cannot lose this member: its data would be lost."
            );
        return new(bay.Label, PullVerdict.Thins, $"{array.Name} survives, but could then lose {Drives(after)} more.");
    }

    private static string WithoutRedundancyAtStake(Bay bay) =>
        bay.Role switch
        {
            BayRole.Empty => "Nothing is in this bay.",
            BayRole.Filling => $"{bay.Array} does not count on this drive yet, but its rebuild would start over.",
            BayRole.Spare => "A spare holds no data; the arrays it stands by for would be without it.",
            BayRole.Dropped => $"{bay.Array ?? "The array"} has already dropped this drive and runs without it.",
            BayRole.Foreign => "Carries another array's data; nothing here depends on it.",
            _ => "Belongs to no array here.",
        };

    internal static string Drives(int count) =>
        count == 0 ? "no drive"
        : count == 1 ? "one drive"
        : $"{count} drives";
}
