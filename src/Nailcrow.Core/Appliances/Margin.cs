namespace Nailcrow.Core.Appliances;

/// <summary>How many more drives an array can lose, at worst, before data is lost. 0 is none, below 0 is already lost.</summary>
public static class Margin
{
    public static int Of(Snapshot snapshot, DriveArray array)
    {
        var reported = Counted(array, [.. snapshot.Holding(array)], guessing: false);
        return array.State == ArrayState.Failed ? Math.Min(reported, -1) : reported;
    }

    /// <summary>The margin if the drive in <paramref name="bay"/> were gone as well.</summary>
    public static int Without(Snapshot snapshot, DriveArray array, Bay bay)
    {
        var left = Counted(array, [.. snapshot.Holding(array).Where(b => b.Label != bay.Label)], guessing: true);
        return array.State == ArrayState.Failed ? Math.Min(left, -1) : left;
    }

    private static int Counted(DriveArray array, IReadOnlyList<Bay> holding, bool guessing)
    {
        var missing = Math.Max(0, array.DesignMembers - holding.Count(b => b.Role == BayRole.Member));
        return array.Level switch
        {
            ArrayLevel.Raid0 => -missing,
            ArrayLevel.Raid1 => array.DesignMembers - 1 - missing,
            ArrayLevel.Raid5 => 1 - missing,
            ArrayLevel.Raid6 => 2 - missing,
            ArrayLevel.Raid10 => OfMirrors(array, holding, missing, guessing),
            _ => throw new ArgumentOutOfRangeException(nameof(array), array.Level, "No margin rule for this level."),
        };
    }

    private static int OfMirrors(DriveArray array, IReadOnlyList<Bay> holding, int missing, bool guessing)
    {
        var members = holding.Where(b => b.Role == BayRole.Member).ToList();
        if (members.All(b => b.Mirror is not null))
            return Enumerable.Range(0, array.DesignMembers / 2).Min(m => members.Count(b => b.Mirror == m)) - 1;
        if (missing <= 1)
            return 1 - missing;
        // Nobody said which drives mirror which. An array that still serves has lost no whole mirror yet, but a
        // further pull could complete one, and a guess here is how data is lost.
        return guessing || missing > array.DesignMembers / 2 ? -1 : 0;
    }
}
