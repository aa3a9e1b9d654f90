using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Procedures;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>What leads to a pull: leave that was given for this pull, a look that is not old, and marks that are really two.</summary>
public class LeaveToPullProofTests
{
    private const string NobodySaw = "'pull' pulls a drive and nobody has seen that the array is not rebuilding.";
    private const string NotSpared = "'pull' pulls a drive that the array may not be able to spare, without a lead's go-ahead.";

    [Theory]
    [InlineData("  - id: not-rebuilding\n", "  - id: sure\n    call: May this drive go?\n    with: [asset]\n    allows: pull\n")]
    [InlineData(
        "  - id: not-rebuilding\n",
        "  - id: hurry\n    look: Are you in a hurry?\n    answers: { \"yes\": sure, \"no\": not-rebuilding }\n"
            + "  - id: sure\n    call: May this drive go?\n    with: [asset]\n    allows: pull\n    then: release\n"
    )]
    [InlineData("  - id: mark-software\n", "  - id: sure\n    call: May this drive go?\n    with: [asset]\n    allows: pull\n")]
    [InlineData("  - id: release\n", "  - id: sure\n    call: May this drive go?\n    with: [asset]\n    allows: pull\n")]
    public void A_lead_is_asked_by_the_gate_that_is_shut_and_not_beforehand(string before, string added) =>
        Found.In(
            "front-hot",
            before,
            added + before,
            SafetyRule.PullIsAllowed,
            "'sure' allows a pull and is reached from elsewhere than a gate that is shut against it; lead to it from "
                + "'not-rebuilding', 'pull-not-fatal' or 'whole-before' only."
        );

    [Theory]
    [InlineData("1800", NobodySaw)]
    [InlineData("601", NotSpared)]
    public void What_was_seen_half_an_hour_ago_lets_nobody_pull(string seconds, string sentence) =>
        Found.In("front-hot", Tea, Waited(seconds), SafetyRule.PullIsAllowed, sentence);

    [Theory, InlineData("30"), InlineData("600")]
    public void A_short_wait_before_the_pull_is_no_reason_to_refuse(string seconds) =>
        Shipped.Broken("front-hot", Tea, Waited(seconds)).Findings.Select(f => f.ToString()).ShouldBeEmpty();

    private const string Tea = "  - id: mark-software\n";

    private static string Waited(string seconds) => $"  - id: tea\n    hold: Let the fans settle.\n    seconds: {seconds}\n{Tea}";

    [Fact]
    public void Two_marks_that_are_one_do_not_make_two_and_it_is_said_why()
    {
        var changed = Shipped.Changed(
            "front-hot",
            ("    mark: bay lamp\n", "    mark: Locator  LIGHT\n"),
            ("    mark: label\n", "    mark: software\n"),
            ("    mark: count\n", "    mark: locator light\n"),
            ("    mark: counted together\n", "    mark: software\n")
        );

        var findings = Prover.Prove(changed).Findings;

        findings.ShouldContain(
            f =>
                f.Sentence
                == "Gate 'bay-known' needs bay-established, and nothing before it supplies that. 'software' and 'locator light' are one "
                    + "mark: each is what the software believes of its slots.",
            string.Join("\n", findings)
        );
    }

    [Theory]
    [InlineData("carries-old-data", "        records: old-data-cleared\n", "inserted", "clear", "unchanged")]
    [InlineData("too-many-lost", "        records: restored\n", "rebuild-started", null, "cannot")]
    public void A_sheet_that_changes_no_drive_brings_none_in(string name, string was, string records, string? step, string pattern)
    {
        var findings = Shipped.Broken(name, was, $"        records: {records}\n").Findings;

        findings.ShouldContain(
            f =>
                f.Rule == SafetyRule.Order
                && (step == null || f.Step == step)
                && f.Sentence.EndsWith(
                    $"records '{records}', and a procedure with 'comes-back: {pattern}' brings no new drive in: nothing at its end would prove that it serves.",
                    StringComparison.Ordinal
                ),
            string.Join("\n", findings)
        );
    }
}
