using Nailcrow.Core.Returns.Fitting;

namespace Nailcrow.Core.Returns.Stores;

/// <summary>How many of a model to order: what is used up while an order is on its way, and one more, less what is free.</summary>
public static class Ordering
{
    /// <summary>How far back use is counted, in days: a quarter has enough swaps to count and is not yet history.</summary>
    public const int Days = 90;

    /// <summary>How long an order takes, in days, where nothing else is known.</summary>
    public const int LeadDays = 14;

    /// <param name="fitted">Of each model, by whatever name: how many went into bays within <see cref="Days"/> days.</param>
    /// <param name="free">Of each model: how many lie free in depots.</param>
    public static IReadOnlyList<OrderLine> Of(
        IReadOnlyDictionary<string, int> fitted,
        IReadOnlyDictionary<string, int> free,
        ModelNames names
    )
    {
        var there = free.GroupBy(f => names.Of(f.Key)).ToDictionary(g => g.Key, g => g.Sum(f => f.Value));
        return
        [
            .. fitted
                .GroupBy(f => names.Of(f.Key))
                .Select(g => Line(g.Key, g.Sum(f => f.Value), there.GetValueOrDefault(g.Key)))
                .Where(l => l.Order > 0)
                .OrderByDescending(l => l.Order)
                .ThenBy(l => l.Model, StringComparer.Ordinal),
        ];
    }

    /// <summary>The same of what is counted; null where there are enough, or nobody uses it.</summary>
    /// <param name="used">How many were used up within <see cref="Days"/> days.</param>
    /// <param name="free">How many lie in depots.</param>
    public static OrderLine? OfSupply(string name, long used, long free) =>
        used > 0 && Line(name, (int)used, (int)Math.Min(free, int.MaxValue), "used") is { Order: > 0 } line ? line : null;

    private static OrderLine Line(string model, int fitted, int free, string how = "fitted")
    {
        var used = (int)Math.Ceiling((double)fitted * LeadDays / Days);
        var order = Math.Max(0, used + 1 - free);
        return new(
            model,
            fitted,
            free,
            order,
            $"{fitted} {how} in {Days} days x {LeadDays} days to come = {used}, and 1 more, less {free} free"
        );
    }
}
