using Nailcrow.Core.Intake.Rules;

namespace Nailcrow.Core.Tests.Intake;

/// <summary>A rule's pattern comes from a person, and a line from a stranger: neither stops whoever holds one against the other.</summary>
public sealed class PatternTests
{
    private static string? Problem(string pattern) => new IntakeRule("tried", pattern).Problem();

    [Theory]
    [InlineData(@"slot (?<bay>\S+) (says|reports) .{0,200}end")]
    [InlineData(@"^(?<name>[A-Za-z0-9/-]{1,48}): (?<count>\d{1,9}) errors?")]
    [InlineData(@"a brace { that means itself}, and {x,y} too")]
    [InlineData(@"[]{9999}] a bracket first in its class")]
    [InlineData(@"(?:(?:ab){20}){20}")]
    public void Whatever_says_something_about_a_line_is_taken(string pattern) => Problem(pattern).ShouldBeNull();

    [Theory]
    [InlineData("a{201}", "The pattern of rule 'tried' repeats a part up to 201 times; at most 200, or without a bound.")]
    [InlineData("[^]{]{0,99999}", "The pattern of rule 'tried' repeats a part up to 99999 times; at most 200, or without a bound.")]
    [InlineData("a{99999999999}", "The pattern of rule 'tried' repeats a part up to 2147483647 times; at most 200, or without a bound.")]
    [InlineData(
        "(((a{99}){99}){99}){99}",
        "The pattern of rule 'tried' asks for more than 5000 places in a line, its repetitions multiplied; make them fewer."
    )]
    [InlineData(
        "(a{100}b{100}){26}",
        "The pattern of rule 'tried' asks for more than 5000 places in a line, its repetitions multiplied; make them fewer."
    )]
    [InlineData(
        "a{100}{100}",
        "The pattern of rule 'tried' asks for more than 5000 places in a line, its repetitions multiplied; make them fewer."
    )]
    public void What_asks_for_more_than_a_line_has_is_refused_before_it_is_built(string pattern, string reason) =>
        Problem(pattern).ShouldBe(reason);

    [Fact]
    public void Whatever_pattern_is_taken_comes_to_an_end_with_whatever_line()
    {
        var chance = new Random(11);
        string[] parts =
        [
            "a",
            "b?",
            "(a|ab|b)*",
            @"\w+",
            ".*",
            "[a-f]{0,9}",
            "(x+x+)+y",
            "(?i:é|É)",
            @"(\s*,\s*)*",
            "a{3}",
            "(?:",
            "(",
            ")",
            "|",
            "{2,50}",
            "^",
            "$",
        ];
        var taken = 0;
        for (var i = 0; i < 2_000; i++)
        {
            var rule = new IntakeRule(
                "tried",
                string.Concat(Enumerable.Range(0, chance.Next(1, 12)).Select(_ => parts[chance.Next(parts.Length)]))
            );
            if (rule.Problem() is not null)
                continue;
            taken++;
            var line = string.Concat(Enumerable.Range(0, 8_192).Select(_ => "abxy ,é"[chance.Next(7)]));
            new RuleBook([rule]).On(null, line);
        }

        taken.ShouldBeGreaterThan(300);
    }
}
