using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances.Arrays;

/// <summary>How an array spreads its redundancy: how many groups of members, and how many each group can lose.</summary>
/// <param name="AreTold">Somebody said how many groups there are; else it is the number that such an array has at most or at least.</param>
/// <param name="IsMirrored">Its groups are mirrors, of which one drive must be left.</param>
public sealed record Redundancy(int Groups, int Bears, bool AreTold = true, bool IsMirrored = false)
{
    // A grouped array that does not say how many groups it has; two is the fewest, and so the most cautious.
    private const int FewestGroups = 2;

    public static Redundancy Of(DriveArray array) => Of(array.Level, array.DesignMembers, array.Groups, array.Parity);

    public static Redundancy Of(ArrayDesign design) => Of(design.Level, design.Members, design.Groups, design.Parity);

    public static Redundancy Of(ArrayLevel level, int members, int? groups, int? parity) =>
        level switch
        {
            ArrayLevel.Raid0 => new(1, 0),
            ArrayLevel.Raid1 => new(1, members - 1),
            ArrayLevel.Raid5 or ArrayLevel.MixedSizeOne => new(1, 1),
            ArrayLevel.Raid6 or ArrayLevel.MixedSizeTwo => new(1, 2),
            ArrayLevel.TripleParity => new(1, 3),
            ArrayLevel.KPlusM => new(1, parity ?? 0),
            ArrayLevel.Raid10 when groups is { } mirrors && mirrors > 0 => new(mirrors, members / mirrors - 1, IsMirrored: true),
            // Two copies, on Linux over an odd number of drives as well; then no two drives are a mirror of their own.
            ArrayLevel.Raid10 => new(Math.Max(1, members / 2), 1, members % 2 == 0, IsMirrored: true),
            ArrayLevel.Raid50 => new(groups ?? FewestGroups, 1, groups is not null),
            ArrayLevel.Raid60 => new(groups ?? FewestGroups, 2, groups is not null),
            _ => throw new ArgumentOutOfRangeException(nameof(level), level, "No rule says what this level can lose."),
        };

    /// <summary>What makes such an array impossible, as the end of a sentence; null where it can be.</summary>
    public static string? Problem(ArrayLevel level, int members, int? groups, int? parity)
    {
        if (members < Fewest(level, groups, parity))
            return $"is {Words.Of(level)} with {members} members; that level has at least {Fewest(level, groups, parity)}";
        if (level == ArrayLevel.KPlusM && parity is not > 0)
            return "is k-plus-m and does not say its m; give parity, 1 or more";
        if (
            level is ArrayLevel.Raid10 or ArrayLevel.Raid50 or ArrayLevel.Raid60
            && (level != ArrayLevel.Raid10 || groups is not null)
            && Of(level, members, groups, parity).Groups is var g
            && (g < 1 || members % g != 0)
        )
            return $"is {Words.Of(level)} with {members} members in {g} groups; every group has the same number";
        return null;
    }

    private static int Fewest(ArrayLevel level, int? groups, int? parity) =>
        level switch
        {
            ArrayLevel.Raid0 => 1,
            ArrayLevel.Raid1 or ArrayLevel.MixedSizeOne => 2,
            ArrayLevel.Raid10 when groups is null => 2,
            ArrayLevel.Raid5 or ArrayLevel.MixedSizeTwo => 3,
            ArrayLevel.TripleParity => 5,
            ArrayLevel.Raid50 => 3 * (groups ?? FewestGroups),
            ArrayLevel.Raid60 => 4 * (groups ?? FewestGroups),
            ArrayLevel.KPlusM => (parity ?? 1) + 1,
            _ => 4,
        };
}
