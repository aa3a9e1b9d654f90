namespace Nailcrow.Core.Appliances.Arrays;

/// <summary>A margin that is not known for certain: at worst, and at best.</summary>
public readonly record struct MarginRange(int Worst, int Best);

/// <summary>How many more drives an array can lose, at worst, before data is lost. 0 is none, below 0 is already lost.</summary>
public static class Margin
{
    /// <summary>The most cautious that fits what is known; see <see cref="Standing"/>.</summary>
    public static int Of(Snapshot snapshot, DriveArray array) => Standing.Of(snapshot, array).Margin.Worst;

    /// <summary>
    /// With one group, what it bears less what is short; with several, the same of the group that is shortest, which where nobody
    /// told the groups lies between all that is short in one group and spread evenly.
    /// </summary>
    /// <param name="serving">Members that serve, those that go among them.</param>
    /// <param name="gone">Those of them that are taken to be gone.</param>
    /// <param name="hidden">Drives that nobody described, which may serve.</param>
    /// <param name="saysShort">The array itself says that one is short at least, whatever the count says.</param>
    internal static MarginRange Between(
        DriveArray array,
        IReadOnlyCollection<Bay> serving,
        IReadOnlyCollection<Bay> gone,
        int hidden,
        bool saysShort
    )
    {
        var redundancy = Redundancy.Of(array);
        if (GroupsAreTold(array, serving))
            return OfGroups(array, redundancy, serving, gone, hidden, saysShort);
        var missing = Math.Max(0, array.DesignMembers - serving.Count);
        var (most, least) = (Math.Max(missing, saysShort ? 1 : 0) + gone.Count, Math.Max(missing - hidden, saysShort ? 1 : 0) + gone.Count);
        return redundancy.Groups == 1
            ? new(redundancy.Bears - most, redundancy.Bears - least)
            : new(redundancy.Bears - Math.Min(most, SizeOf(array, redundancy)), redundancy.Bears - Spread(least, redundancy.Groups));
    }

    /// <summary>There are groups, and of each member that serves it is known to which it belongs.</summary>
    internal static bool GroupsAreTold(DriveArray array, IEnumerable<Bay> serving) =>
        Redundancy.Of(array) is { Groups: > 1 and var groups, AreTold: true } && serving.All(b => b.Group >= 0 && b.Group < groups);

    private static MarginRange OfGroups(
        DriveArray array,
        Redundancy redundancy,
        IReadOnlyCollection<Bay> serving,
        IReadOnlyCollection<Bay> gone,
        int hidden,
        bool saysShort
    )
    {
        var size = SizeOf(array, redundancy);
        var groups = Groups(size, redundancy.Groups, serving, gone);
        var missing = groups.Sum(g => g.Missing * g.Alike);
        var ranges = new List<(int Deepest, int AtBest)>();
        if (missing > 0 || !saysShort)
            ranges.Add((groups.Max(g => g.Missing + g.Gone), Filled(groups, Math.Min(hidden, missing - (saysShort ? 1 : 0)))));
        // Where whoever was not described serves, the one that is short by the array's own word is one that reads well.
        if (saysShort && missing <= hidden)
            ranges.Add((groups.Max(g => g.Gone) + 1, Math.Max(groups.Max(g => g.Gone), groups.Min(g => g.Gone) + 1)));
        return new(
            redundancy.Bears - Math.Min(size, ranges.Max(r => r.Deepest)),
            redundancy.Bears - Math.Min(size, ranges.Min(r => r.AtBest))
        );
    }

    /// <summary>How many drives each group is short of, those of which none serves as one: how many there are is what somebody said, and no size.</summary>
    private static List<(int Missing, int Gone, long Alike)> Groups(
        int size,
        int count,
        IReadOnlyCollection<Bay> serving,
        IReadOnlyCollection<Bay> gone
    )
    {
        var (served, lost) = (serving.CountBy(b => b.Group ?? -1).ToDictionary(), gone.CountBy(b => b.Group ?? -1).ToDictionary());
        var groups = served
            .Keys.Union(lost.Keys)
            .Select(g => (Missing: Math.Max(0, size - served.GetValueOrDefault(g)), Gone: lost.GetValueOrDefault(g), Alike: 1L))
            .ToList();
        if (count > groups.Count)
            groups.Add((size, 0, count - groups.Count));
        return groups;
    }

    /// <summary>What the shortest group is short of where so many of the missing serve after all, each where it helps most.</summary>
    private static int Filled(List<(int Missing, int Gone, long Alike)> groups, long serve) =>
        Enumerable
            .Range(0, groups.Max(g => g.Missing + g.Gone) + 1)
            .First(left =>
                groups.All(g => g.Missing + g.Gone - left <= g.Missing)
                && groups.Sum(g => Math.Max(0, g.Missing + g.Gone - left) * g.Alike) <= serve
            );

    private static int SizeOf(DriveArray array, Redundancy redundancy) =>
        redundancy.IsMirrored ? redundancy.Bears + 1 : array.DesignMembers / redundancy.Groups;

    private static int Spread(int drives, int groups) => (drives + groups - 1) / groups;
}
