using Nailcrow.Core.Appliances.Arrays;

namespace Nailcrow.Core.Appliances.Models;

/// <summary>One drive that would be exchanged for a larger one.</summary>
public sealed record SizeChange(string Bay, long From, long To);

/// <summary>A plan of some exchanges, and what the array would then hold.</summary>
/// <param name="Gain">Usable bytes more than now.</param>
public sealed record Upgrade(IReadOnlyList<SizeChange> Changes, Capacity After, long Gain);

/// <summary>The smallest size that, in this bay alone, gives all that any size there can give.</summary>
/// <param name="Size">Null where no larger drive in this bay gives anything by itself.</param>
public sealed record BaySize(string Bay, long Now, long? Size, long Gain);

/// <summary>What an array would hold after drives of it are exchanged, and which exchanges pay.</summary>
public static class Upgrades
{
    /// <summary>Capacity once these changes are made; growth may still have to be claimed on the machine.</summary>
    public static Upgrade Plan(DriveArray array, IReadOnlyList<Bay> members, IReadOnlyList<SizeChange> changes)
    {
        var sizes = members.Select(b => changes.LastOrDefault(c => c.Bay == b.Label)?.To ?? b.Bytes ?? 0).ToList();
        var after = Of(array, sizes);
        return new(changes, after, after.Usable - Now(array, members).Usable);
    }

    public static Capacity Now(DriveArray array, IReadOnlyList<Bay> members) => Of(array, [.. members.Select(b => b.Bytes ?? 0)]);

    /// <summary>
    /// The best use of 1, 2, … of the drives in stock. Every formula rises with each size and does not ask which drive has
    /// it, so no exchange of j drives is better than the j smallest for the j largest; each j is tried.
    /// </summary>
    public static IReadOnlyList<Upgrade> Best(DriveArray array, IReadOnlyList<Bay> members, IReadOnlyList<long> stock)
    {
        var smallest = members.OrderBy(b => b.Bytes ?? 0).ThenBy(b => b.Label, StringComparer.Ordinal).ToList();
        var largest = stock.OrderDescending().ToList();
        var plans = new List<Upgrade>();
        for (var j = 1; j <= Math.Min(smallest.Count, largest.Count) && largest[j - 1] > (smallest[j - 1].Bytes ?? 0); j++)
            plans.Add(
                Plan(
                    array,
                    members,
                    [.. Enumerable.Range(0, j).Select(i => new SizeChange(smallest[i].Label, smallest[i].Bytes ?? 0, largest[i]))]
                )
            );
        return plans;
    }

    /// <summary>For each bay by itself, since what one exchange gives depends on the sizes of its neighbours.</summary>
    /// <param name="sizes">What one can buy, or has; in any order.</param>
    public static IReadOnlyList<BaySize> EachBay(DriveArray array, IReadOnlyList<Bay> members, IReadOnlyCollection<long> sizes) =>
        [
            .. members.Select(bay =>
            {
                var now = bay.Bytes ?? 0;
                var gains = sizes
                    .Where(s => s > now)
                    .Distinct()
                    .Order()
                    .Select(s => (Size: s, Plan(array, members, [new(bay.Label, now, s)]).Gain))
                    .ToList();
                var best = gains.Select(g => g.Gain).DefaultIfEmpty(0).Max();
                return best > 0 ? new BaySize(bay.Label, now, gains.First(g => g.Gain == best).Size, best) : new(bay.Label, now, null, 0);
            }),
        ];

    private static Capacity Of(DriveArray array, IReadOnlyList<long> sizes) => Capacity.Of(array.Level, sizes, array.Groups, array.Parity);
}
