using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tests.Intake;

public class SyslogTests
{
    private static readonly DateTimeOffset Newyear = new(2026, 1, 1, 0, 5, 0, TimeSpan.Zero);

    private static SyslogMessage Read(string line) =>
        SyslogMessage.Parse(line, Newyear) switch
        {
            Parsed<SyslogMessage>.Ok(var read) => read,
            Parsed<SyslogMessage>.Refused(var reason) => throw new InvalidOperationException(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };

    [Theory]
    [InlineData(
        "<131>1 2025-12-31T23:59:58.5Z brk-7 storage 812 ID4 - medium error on dk4",
        "brk-7",
        "storage",
        "medium error on dk4",
        "2025-12-31T23:59:58.5Z"
    )]
    [InlineData("<131>1 - brk-7 storage - - [a@1 x=\"] \\] y\"][b@1] bay 3 went dark", "brk-7", "storage", "bay 3 went dark", null)]
    [InlineData(
        "<131>Dec 31 23:59:58 brk-7 storage[812]: medium error on dk4",
        "brk-7",
        "storage",
        "medium error on dk4",
        "2025-12-31T23:59:58Z"
    )]
    [InlineData("<131>Jan  1 00:04:00 brk-7 bay 3 went dark", "brk-7", null, "bay 3 went dark", "2026-01-01T00:04:00Z")]
    [InlineData("<13>no head at all", null, null, "no head at all", null)]
    [InlineData("<131>1 2026-01-01T00:00:00Z h app - - - beep\u0007\u001b[2Jbeep", "h", "app", "beep··[2Jbeep", "2026-01-01T00:00:00Z")]
    public void Both_forms_are_read_and_a_missing_year_is_the_nearest_one(string line, string? host, string? app, string text, string? at)
    {
        var read = Read(line);

        (read.Host, read.App, read.Text, read.At).ShouldBe(
            (host, app, text, at is null ? null : DateTimeOffset.Parse(at, System.Globalization.CultureInfo.InvariantCulture))
        );
    }

    [Theory]
    [InlineData("")]
    [InlineData("hello")]
    [InlineData("<>x")]
    [InlineData("<999>x")]
    [InlineData("<131>1 yesterday h a - - - x")]
    [InlineData("<131>1 2026-01-01T00:00:00Z h")]
    public void What_is_no_line_is_refused(string line) =>
        SyslogMessage.Parse(line, Newyear).ShouldBeOfType<Parsed<SyslogMessage>.Refused>();

    [Fact]
    public void The_first_rule_in_order_of_id_that_matches_says_what_a_line_is()
    {
        var rules = new RuleBook([
            new("z-noise", "error", Outcome: RuleOutcome.Ignore),
            new("medium", @"medium error on (?<name>dk\d+)(?:, (?<count>\d+) times)?", App: "storage"),
        ]);

        var match = rules.On("storage", "Medium error on dk4, 41 times");

        (match?.Rule.Id, match?.Name, match?.Count).ShouldBe(("medium", "dk4", 41));
        rules.On("kernel", "medium error on dk4")?.Rule.Id.ShouldBe("z-noise");
        rules.On("storage", "all is well").ShouldBeNull();
    }

    /// <summary>Whether it matches is not known then; ignoring the line because a later rule says so would hide a fault.</summary>
    [Fact]
    public void A_rule_that_does_not_come_to_an_end_lets_no_later_one_decide_in_its_place()
    {
        IntakeRule[] both = [new("a-slow", "(a|b)*medium [a-z]+ error"), new("z-noise", "error", Outcome: RuleOutcome.Ignore)];
        var line = string.Concat(Enumerable.Repeat("medium ab ", 700)) + "error";
        var longer = string.Concat(Enumerable.Repeat("medium ab ", 200_000)) + "error"; // a bound is counted in milliseconds; this takes many

        new RuleBook(both, TimeSpan.FromTicks(1)).On("storage", longer).ShouldBeNull();
        new RuleBook(both).On("storage", line)?.Rule.Id.ShouldBe("a-slow");
    }

    [Theory]
    [InlineData("", "x", "A rule has an id, such as 'medium-error'.")]
    [InlineData("a", "", "The pattern of rule 'a' has 0 characters; 1 to 500.")]
    [InlineData("a", "(?<slot>x)", "Rule 'a' captures 'slot'; a rule captures bay, name, serial, array, asset, count.")]
    public void A_rule_that_cannot_be_used_says_why(string id, string pattern, string sentence) =>
        new IntakeRule(id, pattern).Problem().ShouldBe(sentence);

    [Theory, InlineData("("), InlineData("(a)\\1")]
    public void A_pattern_that_is_none_or_could_be_made_slow_is_refused(string pattern) =>
        (new IntakeRule("a", pattern).Problem() ?? "").ShouldStartWith("The pattern of rule 'a' cannot be used:");
}
