using System.Text.RegularExpressions;

namespace Nailcrow.Core.Intake.Rules;

/// <summary>All rules, ready to be held against lines. The first that matches counts, in order of id.</summary>
public sealed class RuleBook(IEnumerable<IntakeRule> rules)
{
    private readonly IReadOnlyList<(IntakeRule Rule, Regex Pattern)> _rules =
    [
        .. rules.OrderBy(r => r.Id, StringComparer.Ordinal).Select(r => (r, r.Compiled())),
    ];

    public RuleMatch? On(string? app, string text)
    {
        foreach (var (rule, pattern) in _rules)
            if (
                (rule.App is null || string.Equals(rule.App, app, StringComparison.OrdinalIgnoreCase))
                && pattern.Match(text) is { Success: true } match
            )
                return Told(rule, match);
        return null;
    }

    private static RuleMatch Told(IntakeRule rule, Match match)
    {
        string? Of(string name) => match.Groups[name] is { Success: true, Value: { Length: > 0 } value } ? value : null;
        return new(
            rule,
            Of("bay"),
            Of("name"),
            Of("serial"),
            Of("array"),
            Of("asset"),
            int.TryParse(Of("count"), out var count) ? count : null
        );
    }
}
