using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Proof;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>The proof bites: each safety rule, broken in several ways in what ships, is found, with a way there that a person can follow.</summary>
public class ProofTests
{
    private const string NobodySaw = "'pull' pulls a drive and nobody has seen that the array is not rebuilding.";
    private const string NotSpared = "'pull' pulls a drive that the array may not be able to spare, without a lead's go-ahead.";
    private const string NotTheMachine = "'pull' pulls a drive before two marks have said that this is the machine.";
    private const string NotTheBay = "'pull' pulls a drive before two marks have said that this is the bay.";
    private const string NoWait =
        "'insert' fills the bay without the model's wait after the pull (a hold with 'seconds: model.wait-after-pull').";

    public static TheoryData<string> All => [.. Shipped.Names];

    [Theory, MemberData(nameof(All))]
    public void Every_procedure_that_ships_is_proved(string name) =>
        Prover.Prove(Shipped.Named(name)).Findings.Select(f => f.ToString()).ShouldBeEmpty();

    [Fact]
    public void The_file_that_the_reference_begins_with_is_proved()
    {
        var reference = File.ReadAllText(Path.Combine(Shipped.Folder, "..", "docs", "procedures.md")).ReplaceLineEndings("\n");
        var example = reference.Split("```yaml\n")[1].Split("```")[0];

        Prover.Prove(Made.Read(example)).Findings.Select(f => f.ToString()).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("front-hot", "needs: not-rebuilding", "needs: snapshot-before", NobodySaw)]
    [InlineData("front-hot", "needs: pull-not-fatal", "needs: snapshot-before", NotSpared)]
    [InlineData("front-hot", "    allows: pull\n", "", NotSpared)]
    [InlineData(
        "front-hot",
        "    with: [asset, array, bay, serial]\n    allows: pull\n",
        "    with: [asset, array, bay, serial]\n    then: release\n",
        NobodySaw
    )]
    [InlineData("released-first", "needs: released", "needs: snapshot-before", NobodySaw)]
    [InlineData(
        "several",
        "          - use: may-pull\n",
        "          - id: ask-lead\n            look: Did you wait?\n            answers: { so: go on, refused: light-is-off }\n",
        NobodySaw
    )]
    [InlineData(
        "early",
        "    if-not: Do not pull. Ask the lead.\n    answers: { ask: ask-lead }\n",
        "    answers: { ask: ask-lead, hurry: release }\n",
        NotSpared
    )]
    public void A_pull_that_is_not_allowed_is_found(string name, string was, string now, string sentence) =>
        Found.In(name, was, now, SafetyRule.PullIsAllowed, sentence);

    [Theory]
    [InlineData("front-hot", "needs: bay-established", "needs: snapshot-before", NotTheBay)]
    [InlineData("front-hot", "needs: chassis-established", "needs: snapshot-before", NotTheMachine)]
    [InlineData("front-hot", "none-left: no-mark-left }", "none-left: no-mark-left, sure: pull }", NotTheBay)]
    [InlineData(
        "front-hot",
        "answers: { look-again: chassis-light }",
        "answers: { look-again: chassis-light, sure: light-off }",
        NotTheMachine
    )]
    [InlineData("top-hot", "      - use: find-machine\n", "", NotTheMachine)]
    [InlineData(
        "inside-off",
        "needs: bay-established",
        "needs: light-off",
        "'unplug' pulls a drive before two marks have said that this is the bay."
    )]
    [InlineData("front-hot", "    then: mark-software", "    then: pull", NotTheBay)]
    public void A_drive_pulled_from_a_place_that_is_not_known_is_found(string name, string was, string now, string sentence) =>
        Found.In(name, was, now, SafetyRule.PlaceIsKnown, sentence);

    [Theory]
    [InlineData(
        "front-hot",
        "    against: drive-out\n    records: pulled\n",
        "    against: chassis\n",
        "'carrier' takes the drive from its carrier before its serial was compared."
    )]
    [InlineData(
        "front-hot",
        "    when: answer.serial-out is different and answer.no-mark-left is not refused\n",
        "    when: answer.serial-out is exact\n",
        "A wrong drive is out, and 'as-before' does something else than put it back."
    )]
    [InlineData(
        "front-hot",
        " and answer.no-mark-left is not refused",
        " and answer.no-mark-left is refused",
        "A wrong drive is out, and 'as-before' does something else than put it back."
    )]
    [InlineData(
        "inside-off",
        "  - id: serial-out\n",
        "  - id: unscrew\n    do: Take the carrier off.\n    records: carrier-off\n  - id: serial-out\n",
        "'unscrew' takes the drive from its carrier before its serial was compared."
    )]
    [InlineData(
        "released-first",
        " and answer.no-mark-left is not refused",
        " and answer.no-mark-left is refused",
        "A wrong drive is out, and 'as-before' does something else than put it back."
    )]
    [InlineData(
        "inside-off",
        "    against: drive-out\n    records: pulled\n",
        "    against: chassis\n",
        "'screw-in' fills the bay before the serial of what came out was compared."
    )]
    public void A_drive_that_is_not_compared_or_not_put_back_is_found(string name, string was, string now, string sentence) =>
        Found.In(name, was, now, SafetyRule.SerialIsCompared, sentence);

    [Theory]
    [InlineData("front-hot", "seconds: model.wait-after-pull", "seconds: 5", NoWait)]
    [InlineData(
        "front-hot",
        "  - id: wait\n    hold: Leave the bay empty for {wait-after-pull} seconds.\n    moves: nothing\n    seconds: model.wait-after-pull\n",
        "",
        NoWait
    )]
    [InlineData(
        "front-hot",
        "    seconds: model.wait-after-pull\n  - id: serial-in\n",
        "    seconds: model.wait-after-pull\n    when: model.screws is above 0\n  - id: serial-in\n",
        NoWait
    )]
    [InlineData(
        "inside-off",
        "seconds: model.wait-after-pull",
        "seconds: model.cover-limit",
        "'screw-in' fills the bay without the model's wait after the pull (a hold with 'seconds: model.wait-after-pull')."
    )]
    [InlineData(
        "dropped-but-good",
        "        seconds: model.wait-after-pull\n",
        "        seconds: 10\n",
        "'reseat' fills the bay without the model's wait after the pull (a hold with 'seconds: model.wait-after-pull')."
    )]
    [InlineData(
        "front-hot",
        "  - id: mark-bad\n",
        "  - id: hurry\n    look: Is the replacement unpacked?\n    answers: { \"yes\": serial-in, \"no\": go on }\n  - id: mark-bad\n",
        NoWait
    )]
    public void A_wait_that_is_not_kept_is_found(string name, string was, string now, string sentence) =>
        Found.In(name, was, now, SafetyRule.WaitIsKept, sentence);

    [Theory]
    [InlineData(
        "front-hot",
        "            erases: yes\n",
        "",
        "'start' records 'rebuild-started' and not 'erases: yes', so it could be confirmed without naming bay and serial."
    )]
    [InlineData(
        "front-hot",
        "start the rebuild of {array} onto bay {bay}, serial {part-serial}",
        "start the rebuild of {array} onto bay {bay}",
        "'start' erases and its sentence does not name {bay} and {serial} or {part-serial}."
    )]
    [InlineData(
        "several",
        "onto bay {bay}, serial {part-serial}",
        "onto {part-serial}",
        "'start' erases and its sentence does not name {bay} and {serial} or {part-serial}."
    )]
    [InlineData(
        "carries-old-data",
        "        erases: yes\n",
        "",
        "'clear' records 'old-data-cleared' and not 'erases: yes', so it could be confirmed without naming bay and serial."
    )]
    [InlineData(
        "carries-old-data",
        "of bay {bay}, serial {part-serial}",
        "of the drive",
        "'clear' erases and its sentence does not name {bay} and {serial} or {part-serial}."
    )]
    [InlineData(
        "dropped-but-good",
        "take bay {bay}, serial {serial}, back",
        "take it back",
        "'take-back' erases and its sentence does not name {bay} and {serial} or {part-serial}."
    )]
    public void Something_erased_without_being_named_is_found(string name, string was, string now, string sentence) =>
        Found.In(name, was, now, SafetyRule.ErasedByName, sentence, pathless: true);

    [Theory]
    [InlineData("top-hot", "    closes: the cover\n", "", "The end is reached with the cover not put right.")]
    [InlineData(
        "front-hot",
        "    closes: the bezel\n    when: model.bezel is key",
        "    closes: the bezel\n    when: model.bezel is clips",
        "The end is reached with the bezel not put right."
    )]
    [InlineData("drawer-hot", "    closes: the drawer\n", "", "The end is reached with the drawer not put right.")]
    [InlineData("inside-off", "    closes: the case\n", "", "The end is reached with the case not put right.")]
    [InlineData("front-off", "    closes: power\n", "", "The end is reached with power not put right.")]
    [InlineData("screen-frozen", "        closes: power\n", "", "The end is reached with power not put right.")]
    public void What_is_left_open_on_some_path_is_found(string name, string was, string now, string sentence) =>
        Found.In(name, was, now, SafetyRule.PutRight, sentence);

    [Theory]
    [InlineData("front-hot", "needs: rebuild-seen", "needs: new-drive-seen", "The end is reached without a rebuild seen to start.")]
    [InlineData("front-hot", "needs: array-whole", "needs: rebuild-seen", "The end is reached without the array seen whole again.")]
    [InlineData("front-hot", "needs: snapshot-after", "needs: array-whole", "The end is reached without a snapshot from after.")]
    [InlineData(
        "spare-stepped-in",
        "needs: spare-back",
        "needs: new-drive-seen",
        "The end is reached without the new drive seen as spare."
    )]
    [InlineData(
        "released-first",
        "needs: all-new-good",
        "needs: new-drive-seen",
        "The end is reached without every new drive looked at again."
    )]
    [InlineData(
        "too-many-lost",
        "answers: { \"yes\": go on, \"no\": not-there }",
        "answers: { \"yes\": go on, \"no\": seen }",
        "The end is reached without the customer's word that the data is there again."
    )]
    [InlineData(
        "several",
        "needs: rebuild-seen",
        "needs: new-drive-seen",
        "The next drive is begun without a rebuild onto this one seen to start."
    )]
    public void An_end_that_proves_nothing_is_found(string name, string was, string now, string sentence) =>
        Found.In(name, was, now, SafetyRule.ProvenDone, sentence);

    [Theory]
    [InlineData(
        "front-hot",
        "not-so: stuck\n",
        "",
        "'strap' says what one should see and not where to go if it does not come; add 'not-so:'."
    )]
    [InlineData(
        "front-hot",
        "    with: [asset, array, bay, serial]\n    then: back\n",
        "    then: back\n",
        "Call 'stuck' sends no facts along; add 'with:', for example [asset, array, bay, serial]."
    )]
    [InlineData(
        "too-many-lost",
        "not-so: stuck\n",
        "",
        "Gate 'confirmed' may stay shut and nothing leads away from it; add 'not-so:' or another answer."
    )]
    [InlineData(
        "not-reached",
        "not-so: stuck\n",
        "",
        "Gate 'seen' may stay shut and nothing leads away from it; add 'not-so:' or another answer."
    )]
    [InlineData(
        "released-first",
        "not-so: stuck\n",
        "",
        "Gate 'released' may stay shut and nothing leads away from it; add 'not-so:' or another answer."
    )]
    public void Something_unexpected_with_nowhere_to_go_is_found(string name, string was, string now, string sentence) =>
        Found.In(name, was, now, SafetyRule.WayOut, sentence, pathless: true);

    [Theory]
    [InlineData("front-hot", "    mark: own serial\n", "    mark: locator light\n", SafetyRule.Ends, null)]
    [InlineData("front-hot", "    mark: own serial\n", "    mark: locator light\n", SafetyRule.Reached, "No path leads to 'light-off'.")]
    [InlineData(
        "too-many-lost",
        "        records: restored\n",
        "",
        SafetyRule.Supplied,
        "Gate 'confirmed' needs restored, and nothing before it supplies that."
    )]
    [InlineData("not-reached", "\"yes\": by-eye", "\"yes\": seen", SafetyRule.Reached, "No path leads to 'by-eye'.")]
    [InlineData("dropped-but-good", "[asset, array, link, cables]", "[asset, array, cables]", SafetyRule.Used, null)]
    [InlineData("screen-frozen", "        then: end\n", "        then: ways\n", SafetyRule.Ends, null)]
    [InlineData(
        "front-off",
        "    opens: power\n",
        "",
        SafetyRule.Order,
        "'pull' pulls a drive with the power on, from a machine that has to be switched off for it ('opens: power')."
    )]
    public void What_makes_a_procedure_no_good_in_itself_is_found(string name, string was, string now, SafetyRule rule, string? sentence)
    {
        var findings = Shipped.Broken(name, was, now).Findings;

        findings.ShouldContain(f => f.Rule == rule && (sentence == null || f.Sentence == sentence), string.Join("\n", findings));
    }

    [Fact]
    public void The_way_to_what_is_wrong_is_told_answer_by_answer_and_none_is_shorter()
    {
        var finding = Shipped.Broken("screen-frozen", "        closes: power\n", "").Findings.First(f => f.Rule == SafetyRule.PutRight);

        finding
            .Path.Select(p => p.ToString())
            .ShouldBe([
                "ways: done",
                "got-in: no",
                "lamps: no",
                "still: done",
                "power: yes",
                "power-off: done",
                "dark: done",
                "power-on: done",
                "seen: done",
            ]);
    }

    [Fact]
    public void Twenty_conditions_that_do_not_touch_each_other_add_up_and_do_not_multiply()
    {
        static int States(int conditions) => Prover.Prove(Made.WithConditions(conditions)).States;

        (States(20) - States(10)).ShouldBe(States(30) - States(20));
    }

    [Theory]
    [InlineData("top-hot", "    closes: the chassis\n", "")]
    [InlineData("top-off", "    opens: the cover\n", "")]
    [InlineData("drawer-hot", "    when: model.loading is drawer and model.swap is hot", "    when: model.swap is hot")]
    [InlineData("inside-off", "    closes: power\n", "")]
    [InlineData("front-hot", "    when: model.bezel is key", "    when: model.bezel is clips")]
    [InlineData("drawer-off", "    closes: the drawer\n", "")]
    [InlineData("front-off", " and answer.no-mark-left is not refused", " and answer.no-mark-left is refused")]
    public void What_is_set_aside_to_be_quicker_is_found_as_if_nothing_were(string name, string was, string now)
    {
        var broken = Shipped.BrokenOne(name, was, now);

        Prover.Prove(broken).Findings.Select(f => f.ToString()).ShouldBe(Exactly(broken), ignoreOrder: true);
    }

    [Fact]
    public void A_step_that_opens_one_thing_and_closes_another_is_followed_with_both()
    {
        static string Step(string id, string does) =>
            $"      - id: {id}\n        do: It is {id}.\n{does}        when: model.bays is above 4\n";
        var steps = Step("a", "        opens: the door\n") + Step("b", "        opens: the lid\n        closes: the door\n");

        Prover
            .Prove(Made.Read($"{Made.Head}{steps}{Made.Tail}"))
            .Findings.Select(f => f.Sentence)
            .ShouldBe(["The end is reached with the lid not put right."]);
    }

    /// <summary>Everything followed at once, nothing set aside.</summary>
    private static IEnumerable<string> Exactly(Procedure procedure)
    {
        var view = View.OfAll(procedure);
        var walked = Explorer.Walked(procedure, view);
        return walked.Findings.Concat(new WholeWalk(procedure, walked.Graph, walked, []).Findings()).Select(f => f.ToString());
    }

    [Fact]
    public void Things_that_may_be_open_add_up_and_do_not_multiply()
    {
        static int States(int things) => Prover.Prove(Made.WithThings(things)).States;

        States(9).ShouldBeLessThan(States(3) * 20); // sets of open things multiply it by 512
        Prover.Prove(Made.WithThings(9)).Findings.ShouldBeEmpty();
    }
}
