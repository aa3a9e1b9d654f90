using System.Text.RegularExpressions;
using Nailcrow.Core.Procedures;

namespace Nailcrow.Procedures;

/// <summary>The blanks in a procedure's sentences: <c>{bay}</c>, <c>{serial}</c> and so on.</summary>
internal static partial class Blanks
{
    public static readonly IReadOnlyList<string> Known =
    [
        "asset",
        "chassis-serial",
        "location",
        "site",
        "array",
        "model",
        "bay",
        "name",
        "serial",
        "part-serial",
        "drive-number",
        "drives",
        "wait-after-pull",
        "carrier-screws",
        "cover-limit",
        "latch",
        "carrier",
        "seating",
        "lamps",
        "ways-in",
        "usable-before",
        "usable-after",
    ];

    public static IEnumerable<string> In(RunStep step) =>
        Texts(step).OfType<string>().SelectMany(t => Blank().Matches(t)).Select(m => m.Groups[1].Value).Distinct();

    public static RunStep Fill(RunStep step, IReadOnlyDictionary<string, string> values) =>
        step with
        {
            Say = Fill(step.Say, values),
            See = step.See is null ? null : Fill(step.See, values),
            Hear = step.Hear is null ? null : Fill(step.Hear, values),
            IfNot = step.IfNot is null ? null : Fill(step.IfNot, values),
            With = step.With is null ? null : [.. step.With.Select(w => values.TryGetValue(w, out var value) ? $"{w} {value}" : w)],
        };

    private static IEnumerable<string?> Texts(RunStep step) => [step.Say, step.See, step.Hear, step.IfNot];

    private static string Fill(string text, IReadOnlyDictionary<string, string> values) =>
        Blank().Replace(text, m => values.GetValueOrDefault(m.Groups[1].Value, m.Value));

    [GeneratedRegex(@"\{([a-z-]+)\}")]
    private static partial Regex Blank();
}
