using System.Globalization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Fitting;

/// <summary>What is weighed of parts that fit alike: how far off they lie, when they are needed, and how long each still lasts.</summary>
/// <param name="Now">When it is asked.</param>
/// <param name="Km">How far off each place lies, in km as the crow flies; a place that is not in it is nobody knows how far.</param>
/// <param name="NeededBy">When the engineer sets off, or the promise runs out; null where neither is known.</param>
/// <param name="Engineer">Whose ticket it is: what is in that person's van is there already.</param>
public sealed record Weighing(
    DateTimeOffset Now,
    IReadOnlyDictionary<string, double> Km,
    DateTimeOffset? NeededBy = null,
    string? Engineer = null
)
{
    // On the road it is further than the crow flies, and slower than the limit: so many km of its way in an hour.
    private const double KmInAnHour = 50;

    // Parts in one band of distance are equally near.
    private const double Band = 25;

    // A part whose warranty ends within this goes in last: the customer would have it without one.
    private const int FewDays = 365;

    // What has lain for longer is used before it grows older still, and is told.
    private const int LongDays = 365;

    public static readonly Weighing Nothing = new(default, new Dictionary<string, double>());

    /// <summary>How far off a part lies, in km; 0 in the engineer's own van; null where nobody knows.</summary>
    public double? KmTo(StockPart part) =>
        HasAlong(part) ? 0
        : Km.TryGetValue(part.Depot, out var km) ? km
        : null;

    /// <summary>Whether it can be there when it is needed, by the road alone; what nobody knows is not held against it.</summary>
    public bool IsLate(StockPart part) => NeededBy is { } needed && KmTo(part) is { } km and > 0 && Now.AddHours(km / KmInAnHour) > needed;

    public int BandOf(StockPart part) => KmTo(part) is { } km ? (int)Math.Ceiling(km / Band) : int.MaxValue;

    public bool HasLittleWarranty(StockPart part) => part.Warranty is { } known && known.Warranty.Until < Today.AddDays(FewDays);

    /// <summary>What a person would want to know of a part that fits, each as a sentence.</summary>
    public IEnumerable<string> Notes(StockPart part)
    {
        if (KmTo(part) is { } km)
            yield return HasAlong(part) ? $"{Engineer} has it along."
            : km == 0 ? "It lies at the site."
            : Text($"{km:0} km from the site{(IsLate(part) ? Text($": too late, it is needed by {NeededBy:yyyy-MM-dd HH:mm} UTC") : "")}.");
        if (part.Warranty?.Warranty is { } warranty) // until when is enough here; on which terms and whose word it is, its own page tells
            yield return $"{Words.Capital((warranty with { Terms = null }).Told(Today))}.";
        if (part.Since is { } since && (Now - since).TotalDays > LongDays)
            yield return Text($"It has lain there since {since:yyyy-MM-dd}.");
    }

    private bool HasAlong(StockPart part) => Engineer is { } engineer && part.Depot == new Holder(HolderKind.Van, engineer).Place();

    private DateOnly Today => DateOnly.FromDateTime(Now.UtcDateTime);

    private static string Text(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
