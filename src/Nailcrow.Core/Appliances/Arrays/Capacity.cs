namespace Nailcrow.Core.Appliances.Arrays;

/// <summary>What becomes of the bytes of an array's drives. The three add up to the sum of their sizes.</summary>
/// <param name="Usable">For the customer's data.</param>
/// <param name="Protected">Spent on being able to lose drives.</param>
/// <param name="Unused">In the drives and of no use to the array as it is.</param>
public sealed record Capacity(long Usable, long Protected, long Unused)
{
    public static Capacity operator +(Capacity a, Capacity b) => new(a.Usable + b.Usable, a.Protected + b.Protected, a.Unused + b.Unused);

    /// <summary>
    /// Striped n·min, mirror min, single, double and triple parity (n-p)·min, striped mirrors n·min/2 (on Linux of an odd number of drives too), grouped parity
    /// g·(k-p)·min. Mixed sizes go by steps between neighbouring sizes; see <see cref="OfSteps"/>.
    /// </summary>
    /// <param name="sizes">Bytes of each member, in any order.</param>
    public static Capacity Of(ArrayLevel level, IReadOnlyList<long> sizes, int? groups = null, int? parity = null)
    {
        if (sizes.Count == 0)
            return new(0, 0, 0);
        var redundancy = Redundancy.Of(level, sizes.Count, groups, parity);
        var (g, bears) = (redundancy.Groups, redundancy.Bears);
        if (level is ArrayLevel.MixedSizeOne or ArrayLevel.MixedSizeTwo)
            return OfSteps(sizes, bears);
        var min = sizes.Min();
        if (level == ArrayLevel.Raid10 && groups is null)
            return new(sizes.Count * min / 2, sizes.Count * min - sizes.Count * min / 2, sizes.Sum() - sizes.Count * min);
        var data = Math.Max(0, sizes.Count - g * bears);
        return new(data * min, (sizes.Count - data) * min, sizes.Sum() - sizes.Count * min);
    }

    /// <summary>
    /// The least size that one of the drives may have for the array to hold what it holds now. What is usable rises with a size
    /// only between the sizes of others, so one of these, or its own, is the least.
    /// </summary>
    /// <param name="nth">Which of the sizes, from 0.</param>
    public static long LeastKeeping(ArrayLevel level, IReadOnlyList<long> sizes, int nth, int? groups = null, int? parity = null)
    {
        var usable = Of(level, sizes, groups, parity).Usable;
        return sizes
            .Distinct()
            .Order()
            .First(size => Of(level, [.. sizes.Select((s, i) => i == nth ? size : s)], groups, parity).Usable >= usable);
    }

    /// <summary>A step of height h shared by k drives gives h·(k-p) usable and h·p protection if k > p, else h·k unused.</summary>
    private static Capacity OfSteps(IReadOnlyList<long> sizes, int bears)
    {
        var sorted = sizes.Order().ToList();
        var (total, below) = (new Capacity(0, 0, 0), 0L);
        for (var i = 0; i < sorted.Count; i++)
        {
            var (height, sharing) = (sorted[i] - below, sorted.Count - i);
            total += sharing > bears ? new(height * (sharing - bears), height * bears, 0) : new(0, 0, height * sharing);
            below = sorted[i];
        }
        return total;
    }
}
