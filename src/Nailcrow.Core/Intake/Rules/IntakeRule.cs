using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Intake.Rules;

[JsonConverter(typeof(KebabEnum<RuleOutcome>))]
public enum RuleOutcome
{
    /// <summary>Speaks against a drive or an array: evidence of a kind.</summary>
    Evidence,

    /// <summary>Nothing anybody has to look at.</summary>
    Ignore,
}

/// <summary>How lines of one form are understood. Data, so that a person can add one for a machine nobody knew.</summary>
/// <param name="App">Only lines of this program; null for any.</param>
/// <param name="Pattern">A regular expression (.NET, matched without backtracking) over the message's text; see <see cref="Captures"/>.</param>
public sealed record IntakeRule(
    string Id,
    string Pattern,
    string? App = null,
    RuleOutcome Outcome = RuleOutcome.Evidence,
    EvidenceKind Kind = EvidenceKind.LogLines,
    string? Says = null
)
{
    /// <summary>Names a pattern may capture; any other is a mistake.</summary>
    public static readonly IReadOnlyList<string> Captures = ["bay", "name", "serial", "array", "asset", "count"];

    private const int LongestPattern = 500;

    /// <summary>What is wrong with it, or null.</summary>
    public string? Problem()
    {
        if (string.IsNullOrWhiteSpace(Id))
            return "A rule has an id, such as 'medium-error'.";
        if (Pattern.Length is 0 or > LongestPattern)
            return $"The pattern of rule '{Id}' has {Pattern.Length} characters; 1 to {LongestPattern}.";
        if (PatternSize.Problem(Pattern) is { } large)
            return $"The pattern of rule '{Id}' {large}.";
        try
        {
            var strange = Compiled(Regex.InfiniteMatchTimeout)
                .GetGroupNames()
                .Where(n => !int.TryParse(n, out _) && !Captures.Contains(n))
                .ToList();
            return strange.Count == 0 ? null : $"Rule '{Id}' captures '{strange[0]}'; a rule captures {string.Join(", ", Captures)}.";
        }
        catch (Exception e) when (e is ArgumentException or NotSupportedException)
        {
            return $"The pattern of rule '{Id}' cannot be used: {e.Message}";
        }
    }

    /// <param name="perLine">Matching one line takes no longer, or throws <see cref="RegexMatchTimeoutException"/>.</param>
    internal Regex Compiled(TimeSpan perLine) =>
        new(Pattern, RegexOptions.NonBacktracking | RegexOptions.CultureInvariant | RegexOptions.IgnoreCase, perLine);
}

/// <summary>What a rule made of a line.</summary>
public sealed record RuleMatch(IntakeRule Rule, string? Bay, string? Name, string? Serial, string? Array, string? Asset, int? Count);
