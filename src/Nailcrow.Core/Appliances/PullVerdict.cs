using System.Text.Json.Serialization;

namespace Nailcrow.Core.Appliances;

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
    public static IReadOnlyList<BayVerdict> ForAll(Snapshot snapshot) => [.. snapshot.Bays.Select(b => For(snapshot, b))];

    public static BayVerdict For(Snapshot snapshot, Bay bay) =>
        snapshot.ArrayOf(bay) is { } array && bay.Role == BayRole.Member
            ? OfMember(snapshot, array, bay)
            : new(bay.Label, PullVerdict.Safe, WithoutRedundancyAtStake(bay));

    private static BayVerdict OfMember(Snapshot snapshot, DriveArray array, Bay bay)
    {
        var before = Margin.Of(snapshot, array);
        var after = Margin.Without(snapshot, array, bay);
        if (before < 0)
            return new(bay.Label, PullVerdict.Fatal, $"{array.Name} has already lost data; pulling more takes away what a recovery could use.");
        if (after < 0)
            return new(bay.Label, PullVerdict.Fatal, $"{array.Name} cannot lose this member: its data would be lost.");
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

    internal static string Drives(int count) => count == 0 ? "no drive" : count == 1 ? "one drive" : $"{count} drives";
}
