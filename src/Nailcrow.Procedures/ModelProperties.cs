using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures;

/// <summary>The model properties that a procedure may depend on, by the names it uses for them.</summary>
public static class ModelProperties
{
    public const string RebuildStarts = "model.rebuild-start";
    public const string Swapped = "model.swap";
    public const string Loads = "model.loading";
    public const string WaitAfterPull = "model.wait-after-pull";

    /// <summary>One line a property: its name, what it can be, and how it is read off a model.</summary>
    private static readonly (string Name, FactType Type, Func<ApplianceModel, string> Of)[] All =
    [
        (Loads, OneOf<Loading>(), m => Words.Of(m.Loading)),
        (Swapped, OneOf<SwapPower>(), m => Words.Of(m.Swap)),
        (RebuildStarts, OneOf<RebuildStart>(), m => Words.Of(m.RebuildStart)),
        ("model.release", Either("needed", "not-needed"), m => m.ReleaseBeforePull ? "needed" : "not-needed"),
        ("model.slides-out", Either("yes", "no"), m => YesNo(m.SlidesOut)),
        ("model.bezel", OneOf<Bezel>(), m => Words.Of(m.Bezel)),
        ("model.locator", OneOf<Locator>(), m => Words.Of(m.Locator)),
        ("model.rebuild-runs", OneOf<RebuildRuns>(), m => Words.Of(m.RebuildRuns)),
        ("model.rebuild-copies", OneOf<RebuildCopies>(), m => Words.Of(m.RebuildCopies)),
        ("model.growth", OneOf<Growth>(), m => Words.Of(m.Growth)),
        ("model.end-state", OneOf<EndState>(), m => Words.Of(m.EndState)),
        ("model.next-while-preparing", Either("yes", "no"), m => YesNo(m.NextWhilePreparing)),
        ("model.shows-percent", Either("yes", "no"), m => YesNo(m.ShowsPercent)),
        ("model.screws", Number(Dimension.Count), m => $"{m.CarrierScrews}"),
        ("model.bays", Number(Dimension.Count), m => $"{m.Bays}"),
        ("model.drawers", Number(Dimension.Count), m => $"{m.Drawers}"),
        (WaitAfterPull, Number(Dimension.Time), m => $"{m.WaitAfterPullSeconds}"),
        ("model.cover-limit", Number(Dimension.Time), m => $"{m.CoverLimitSeconds ?? 0}"),
        ("model.locator-off-after", Number(Dimension.Time), m => $"{(m.LocatorOffAfterMinutes ?? 0) * 60}"),
    ];

    public static readonly IReadOnlyDictionary<string, FactType> Facts = All.ToDictionary(p => p.Name, p => p.Type);

    /// <summary>Properties that are a time, usable as the length of a hold or a limit.</summary>
    public static readonly IReadOnlyList<string> Lengths = [.. All.Where(p => p.Type == Number(Dimension.Time)).Select(p => p.Name)];

    /// <summary>The model's value as a word or an invariant number in base units; null where there is no such property.</summary>
    public static string? Of(ApplianceModel model, string property) => Array.Find(All, p => p.Name == property).Of?.Invoke(model);

    private static FactType OneOf<T>()
        where T : struct, Enum => new FactType.OneOf([.. Enum.GetValues<T>().Select(Words.Of)]);

    private static FactType Either(params string[] words) => new FactType.OneOf(words);

    private static FactType Number(Dimension dimension) => new FactType.Number(dimension);

    private static string YesNo(bool holds) => holds ? "yes" : "no";
}
