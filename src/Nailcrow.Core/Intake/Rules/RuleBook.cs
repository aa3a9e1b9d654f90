using System.Text.RegularExpressions;

namespace Nailcrow.Core.Intake.Rules;

/// <summary>All rules, ready to be held against lines. The first that matches counts, in order of id.</summary>
public sealed class RuleBook
{
    /// <summary>
    /// So long for one rule and one line, also where a busy machine gives it a tenth of a processor: a pattern within its bounds needs a
    /// few milliseconds for the longest line.
    /// </summary>
    private static readonly TimeSpan PerLine = TimeSpan.FromSeconds(2);

    private readonly IReadOnlyList<(IntakeRule Rule, Regex Pattern)> _rules;

    public RuleBook(IEnumerable<IntakeRule> rules)
        : this(rules, PerLine) { }

    internal RuleBook(IEnumerable<IntakeRule> rules, TimeSpan perLine) =>
        _rules = [.. rules.OrderBy(r => r.Id, StringComparer.Ordinal).Select(r => (r, r.Compiled(perLine)))];

    /// <returns>
    /// What the first rule that matches made of the line. Null where none does, and where one did not come to an end in its time: whether
    /// it matches is not known, so no later one may decide in its place, and the line is shown as not understood.
    /// </returns>
    public RuleMatch? On(string? app, string text)
    {
        try
        {
            foreach (var (rule, pattern) in _rules)
                if (
                    (rule.App is null || string.Equals(rule.App, app, StringComparison.OrdinalIgnoreCase))
                    && pattern.Match(text) is { Success: true } match
                )
                    return Told(rule, match);
        }
        catch (RegexMatchTimeoutException) { }
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
