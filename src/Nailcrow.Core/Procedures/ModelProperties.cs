using Nailcrow.Core.Appliances;

namespace Nailcrow.Core.Procedures;

/// <summary>The model properties that a procedure may depend on, by the names it uses for them.</summary>
public static class ModelProperties
{
    public static readonly IReadOnlyDictionary<string, IReadOnlyList<string>> Values = new Dictionary<string, IReadOnlyList<string>>
    {
        ["loading"] = All<Loading>(),
        ["swap"] = All<SwapPower>(),
        ["rebuild-start"] = All<RebuildStart>(),
        ["release"] = ["needed", "not-needed"],
        ["carrier-screws"] = ["some", "none"],
    };

    /// <summary>Properties that are a number of seconds, usable as the length of a hold or a limit.</summary>
    public static readonly IReadOnlyList<string> Lengths = ["wait-after-pull"];

    public static string Of(ApplianceModel model, string property) =>
        property switch
        {
            "loading" => Words.Of(model.Loading),
            "swap" => Words.Of(model.Swap),
            "rebuild-start" => Words.Of(model.RebuildStart),
            "release" => model.ReleaseBeforePull ? "needed" : "not-needed",
            "carrier-screws" => model.CarrierScrews > 0 ? "some" : "none",
            _ => throw new ArgumentOutOfRangeException(nameof(property), property, "Not a model property."),
        };

    public static int LengthOf(ApplianceModel model, string property) =>
        property switch
        {
            "wait-after-pull" => model.WaitAfterPullSeconds,
            _ => throw new ArgumentOutOfRangeException(nameof(property), property, "Not a length."),
        };

    public static bool Hold(ApplianceModel model, IReadOnlyDictionary<string, IReadOnlyList<string>> conditions) =>
        conditions.All(c => c.Value.Contains(Of(model, c.Key)));

    private static IReadOnlyList<string> All<T>()
        where T : struct, Enum => [.. Enum.GetValues<T>().Select(Words.Of)];
}
