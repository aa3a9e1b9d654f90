namespace Nailcrow.Core.Appliances.Arrays;

/// <summary>How many more drives an array can lose, at worst, before data is lost. 0 is none, below 0 is already lost.</summary>
public static class Margin
{
    public static int Of(Snapshot snapshot, DriveArray array) => Of(array, [.. snapshot.Holding(array).Where(IsMember)]);

    /// <summary>The margin of an array that these bays are the members of.</summary>
    public static int Of(DriveArray array, IReadOnlyList<Bay> members) => AtMostLost(array, Counted(array, members, guessing: false));

    /// <summary>The margin if the drive in <paramref name="bay"/> were gone as well.</summary>
    public static int Without(Snapshot snapshot, DriveArray array, Bay bay) =>
        Without(array, [.. snapshot.Holding(array).Where(IsMember)], [bay]);

    public static int Without(DriveArray array, IReadOnlyList<Bay> members, IReadOnlyCollection<Bay> gone) =>
        AtMostLost(array, Counted(array, [.. members.Where(b => gone.All(g => g.Label != b.Label))], guessing: true));

    private static bool IsMember(Bay bay) => bay.Role == BayRole.Member;

    private static int AtMostLost(DriveArray array, int counted) => array.State == ArrayState.Failed ? Math.Min(counted, -1) : counted;

    private static int Counted(DriveArray array, IReadOnlyList<Bay> members, bool guessing)
    {
        var (groups, bears) = Redundancy.Of(array);
        var missing = Math.Max(0, array.DesignMembers - members.Count);
        return groups == 1 ? bears - missing : OfGroups(array, members, missing, guessing, groups, bears);
    }

    private static int OfGroups(DriveArray array, IReadOnlyList<Bay> members, int missing, bool guessing, int groups, int bears)
    {
        if (members.All(b => b.Group is not null))
        {
            // Counted by what the bays say, never by how many groups somebody claims there are.
            var left = members.Where(b => b.Group >= 0 && b.Group < groups).GroupBy(b => b.Group).Select(g => g.Count()).ToList();
            var weakest = left.Count < groups ? 0 : left.Min();
            return bears - (array.DesignMembers / groups - weakest);
        }
        if (missing <= bears)
            return bears - missing;
        // Nobody said which drives belong together. An array that still serves has lost no group yet, but a further
        // pull could complete one, and a guess here is how data is lost.
        return guessing || missing > bears * groups ? -1 : 0;
    }
}
