using Nailcrow.Core.Procedures.Checked;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>What is asked of a number that an engineer reads is proved for every number that may be read.</summary>
public class ReadNumbersProofTests
{
    private const string NoWait =
        "'insert' fills the bay without the model's wait after the pull (a hold with 'seconds: model.wait-after-pull').";

    /// <summary>A wait that is left out for some of what may be read, whichever side of whatever number that is.</summary>
    [Theory]
    [InlineData("answer.temp is above 20")]
    [InlineData("answer.temp is below 20")]
    [InlineData("answer.temp is at least 20")]
    [InlineData("answer.temp is at most 20")]
    [InlineData("answer.temp is 20")]
    [InlineData("answer.temp is not 20")]
    [InlineData("answer.temp is above 20 and answer.temp is below 21")]
    [InlineData("answer.temp is below 20 or answer.temp is above 20")]
    [InlineData("not (answer.temp is above 20)")]
    [InlineData("answer.temp is at least 0.5", "    at-least: 0\n    at-most: 60\n")]
    [InlineData("answer.temp is at most 59.5", "    at-least: 0\n    at-most: 60\n")]
    [InlineData("answer.temp is above 0", "    at-least: 0\n    at-most: 60\n")]
    [InlineData("answer.temp is below 60", "    at-least: 0\n    at-most: 60\n")]
    public void Every_number_that_may_be_read_is_walked_on_both_sides_of_what_it_is_compared_with(string when, string range = "") =>
        Found.In(
            "front-hot",
            Wait,
            $"  - id: temp\n    read: Read the temperature.\n    unit: C\n{range}{Wait}    when: {when}\n",
            SafetyRule.WaitIsKept,
            NoWait
        );

    [Theory]
    [InlineData("answer.temp is above 20 or answer.temp is at most 20")]
    [InlineData("answer.temp is at least 0", "    at-least: 0\n    at-most: 60\n")]
    [InlineData("answer.temp is below 60.5", "    at-least: 0\n    at-most: 60\n")]
    public void What_holds_for_whatever_may_be_read_is_no_reason_to_refuse(string when, string range = "") =>
        Shipped
            .Broken("front-hot", Wait, $"  - id: temp\n    read: Read the temperature.\n    unit: C\n{range}{Wait}    when: {when}\n")
            .Findings.Select(f => f.ToString())
            .ShouldBeEmpty();

    private const string Wait =
        "  - id: wait\n    hold: Leave the bay empty for {wait-after-pull} seconds.\n    moves: nothing\n    seconds: model.wait-after-pull\n";
}
