using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Sheets;

/// <summary>What fills the blanks of a sheet's sentences.</summary>
internal static class BlankValues
{
    public static IReadOnlyDictionary<string, string> Of(SheetFacts facts, int? drive)
    {
        var (model, number) = (facts.Model, drive ?? 0);
        var target = number < facts.Drives.Count ? facts.Drives[number] : null;
        return new Dictionary<string, string>
        {
            ["asset"] = facts.Asset,
            ["chassis-serial"] = facts.ChassisSerial,
            ["location"] = facts.Location,
            ["site"] = facts.Site,
            ["array"] = facts.Array,
            ["model"] = $"{model.Maker} {model.Name}",
            ["bay"] = target?.Bay ?? "(no bay)",
            ["name"] = target?.Name ?? "the drive",
            ["serial"] = target?.Serial ?? "(no serial)",
            ["part-serial"] = target?.PartSerial ?? "the replacement",
            ["drive-number"] = $"{number + 1}",
            ["drives"] = $"{Math.Max(1, facts.Drives.Count)}",
            ["wait-after-pull"] = $"{model.WaitAfterPullSeconds}",
            ["carrier-screws"] = model.CarrierScrews switch
            {
                0 => "it clips on",
                1 => "1 screw",
                var screws => $"{screws} screws",
            },
            ["cover-limit"] = Minutes(model.CoverLimitSeconds),
            ["latch"] = model.Latch,
            ["carrier"] = model.Carrier,
            ["seating"] = model.Seating ?? "Push until it clicks.",
            ["lamps"] =
                model.Lamps.Count == 0
                    ? "see the machine's own legend"
                    : string.Join("; ", model.Lamps.Select(l => $"{l.Pattern}: {l.Meaning}")),
            ["ways-in"] = model.WaysIn.Count == 0 ? "ask the customer" : string.Join("; ", model.WaysIn),
            ["usable-before"] = Usable(facts.Space?.Before),
            ["usable-after"] = Usable(facts.Space?.Forecast),
        };
    }

    private static string Usable(long? bytes) => bytes is { } known ? ByteSize.Both(known) : "an unknown size";

    private static string Minutes(int? seconds) =>
        seconds is not { } s ? "as long as you like"
        : s % 60 == 0 ? $"{s / 60} minutes"
        : $"{s} seconds";
}
