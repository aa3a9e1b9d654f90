using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Procedures;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>What a sentence says of a drive and what its step declares are one, in any kind of text, case and spelling.</summary>
public class DeclaredTests
{
    private const string Undeclared = "and does not say what happens to it; add 'records:', 'erases: yes' or 'moves: nothing'.";

    [Theory]
    [InlineData("do: Look at the drive.", "do")]
    [InlineData("do: Wipe your glasses.\n    see: Bay {bay} is dark.", "see")]
    [InlineData("do: Listen.\n    hear: The CARRIER clicks.", "hear")]
    [InlineData("do: Listen.\n    normal-now: [\"A disk that hums\"]", "normal-now")]
    [InlineData("do: Go on.\n    see: It is dark.\n    if-not: Mind the trays.", "if-not")]
    [InlineData("hold: Let {array} rest.\n    seconds: 20", "hold")]
    [InlineData("call: Say which drives you see.\n    with: [asset]", "call")]
    [InlineData("look: Is it day?\n    answers: { \"the drive\": go on, \"no\": ask-lead }", "answers")]
    public void Whoever_names_a_drive_says_what_happens_to_it(string step, string key) =>
        Of(step).ShouldContain($"'odd' names a drive, bay, carrier or array in '{key}' {Undeclared}");

    [Theory]
    [InlineData("Pull the drive.", "pull")]
    [InlineData("PULL THE DRIVE NOW!", "pull")]
    [InlineData("Pulll it.", "pull")]
    [InlineData("Pu\u200Bll the drive.", "pull")]
    [InlineData("\uFF30\uFF55\uFF4C\uFF4C the drive.", "pull")]
    [InlineData("Start by pulling the disk.", "pull")]
    [InlineData("Remove {serial}.", "remove")]
    [InlineData("Eject {name} and bag it.", "eject")]
    [InlineData("Press the lever, then take the carrier slowly out.", "take")]
    [InlineData("Pull, and bag the drive.", "pull")]
    [InlineData("Do not wait: pull it.", "pull")]
    [InlineData("Do not hesitate to pull the drive.", "pull")]
    [InlineData("Touch nothing else and pull the drive.", "pull")]
    [InlineData("Never mind the lamp. Unplug the drive.", "unplug")]
    [InlineData("The drive is to be withdrawn.", "withdraw")]
    [InlineData("It comes out of bay {bay} by itself.", "come")]
    [InlineData("Swap the drive.", "swap")]
    [InlineData("Seat the drive again.", "seat")]
    [InlineData("Push the replacement gently into bay {bay}.", "push")]
    [InlineData("Re-insert the drive.", "insert")]
    [InlineData("Reinsert it.", "reinsert")]
    [InlineData("Plug the drive back in.", "plug")]
    [InlineData("Erase the array.", "erase")]
    [InlineData("Initialize bay {bay}.", "initialize")]
    [InlineData("Choose 'initialise' for {array}.", "initialise")]
    [InlineData("Delete everything on it.", "delete")]
    [InlineData("Zero the drive.", "zero")]
    [InlineData("Force a rebuild of {array}.", "force")]
    [InlineData("Clear the foreign data.", "clear")]
    [InlineData("Create a new array.", "create")]
    [InlineData("Set {array} up anew.", "set")]
    [InlineData("Lift the drive.", "lift")]
    public void A_word_that_moves_or_empties_one_is_heard_in_any_case_and_spelling(string sentence, string word) =>
        Of($"do: {Quoted(sentence)}\n    moves: nothing")
            .ShouldContain(f => f.StartsWith($"'odd' says '{word}' in 'do'; ", StringComparison.Ordinal), sentence);

    [Theory]
    [InlineData("do: Look.\n    see: All is well.\n    if-not: Pull it and look again.\n    moves: nothing", "pull", "if-not")]
    [InlineData("do: Look.\n    hear: It hums once you pull the drive.\n    moves: nothing", "pull", "hear")]
    [InlineData("look: Ready?\n    moves: nothing\n    answers: { \"pull it\": go on, \"no\": ask-lead }", "pull", "answers")]
    [InlineData("call: Replace the drive and call.\n    with: [asset]\n    moves: nothing", "replace", "call")]
    [InlineData("hold: Wipe the drive meanwhile.\n    seconds: 20\n    moves: nothing", "wipe", "hold")]
    [InlineData("gate: Pull the drive once it is seen.\n    needs: snapshot-before", "pull", "gate")]
    [InlineData(
        "look: Is bay {bay} yours? Pull it.\n    records: bay-mark\n    mark: tape\n    answers: { \"yes\": go on, \"no\": go on }",
        "pull",
        "look"
    )]
    public void It_is_heard_in_every_kind_of_text(string step, string word, string key) =>
        Of(step).ShouldContain(f => f.StartsWith($"'odd' says '{word}' in '{key}'; ", StringComparison.Ordinal));

    [Theory]
    [InlineData("Do not pull the drive yet.")]
    [InlineData("Don't touch or pull the drive.")]
    [InlineData("Nobody pulls the drive now.")]
    [InlineData("Never unplug it.")]
    [InlineData("Read {serial} without pulling it.")]
    [InlineData("Pull nothing.")]
    [InlineData("After the pull the lamp of bay {bay} is dark.")]
    [InlineData("Lay the pulled drive aside.")]
    [InlineData("Pull the plug of the fan. Leave the drive alone.")]
    [InlineData("Count the bays from the left.")]
    [InlineData("Listen for a clear tone.")]
    public void What_tells_nobody_to_move_one_is_left_alone(string sentence) => Of($"do: {sentence}\n    moves: nothing").ShouldBeEmpty();

    [Fact]
    public void An_author_answers_what_the_second_look_mistakes_and_that_is_taken_on_trust()
    {
        const string step =
            "do: Pull the lever of bay {bay} halfway.\n    moves: nothing\n    means: { pull: \"The lever only, and no drive.\" }";

        Of(step).ShouldBeEmpty();
        Trusting
            .Of(With(step))
            .ShouldContain(t =>
                t.What == Belief.Means && t.Step == "odd" && t.Word == "pull" && t.Claim == "The lever only, and no drive."
            );
    }

    [Theory]
    [InlineData(
        "do: Look at bay {bay}.\n    moves: nothing\n    means: { pull: \"Nothing.\" }",
        "'odd' says what 'pull' means, and nothing in it asks for that; take it away."
    )]
    [InlineData(
        "do: Look at bay {bay}.\n    moves: nothing\n    records: unseated",
        "'odd' says 'moves: nothing' and records 'unseated'; one of the two is wrong."
    )]
    [InlineData(
        "do: Do not ease the drive out of bay {bay}.\n    records: unseated",
        "'odd' tells somebody not to ease and declares that it is done; one of the two is wrong."
    )]
    [InlineData(
        "do: Push the drive into bay {bay}.\n    records: unseated",
        "'odd' says 'push' in 'do'; declare the drive that goes in ('records: inserted', 'reseated' or 'put-back'), or say what it means: "
            + "'means: { push: ... }'."
    )]
    [InlineData(
        "do: Look at {serial} in bay {bay}.\n    erases: yes\n    moves: nothing",
        "'odd' says 'moves: nothing' and erases; one of the two is wrong."
    )]
    public void What_is_declared_and_what_is_said_do_not_contradict_each_other(string step, string sentence) =>
        Of(step).ShouldContain(sentence);

    [Theory]
    [InlineData("moves: everything", "A step moves 'nothing', or says by 'records:' what moves, not 'everything'.")]
    [InlineData("means: pull", "'means' is to be a mapping of words to what each of them means")]
    [InlineData("means: { pull: }", "'means' is to be a mapping of words to what each of them means")]
    public void What_cannot_be_read_as_a_declaration_is_refused(string key, string sentence) =>
        Shouldly.Should.Throw<InvalidDataException>(() => With($"do: Look at bay {{bay}}.\n    {key}")).Message.ShouldContain(sentence);

    [Fact]
    public void What_ships_is_trusted_in_what_it_says_and_the_word_for_it_changes_with_it()
    {
        var (shipped, changed) = (Trusting.Of(Shipped.Named("front-hot")), Trusting.Of(With("do: Look at bay {bay}.\n    moves: nothing")));

        shipped.Select(t => t.What).Distinct().ShouldBe(Enum.GetValues<Belief>(), ignoreOrder: true);
        shipped.Where(t => t.What == Belief.Mark).ShouldContain(t => t.Word == "count" && t.Sentence.StartsWith("Count the bays"));
        changed.Count.ShouldBe(shipped.Count + 1);
        Trusting.Word(changed).ShouldNotBe(Trusting.Word(shipped));
        Trusting.Word(shipped).ShouldBe(Trusting.Word(Trusting.Of(Shipped.Named("front-hot"))));
    }

    private static Procedure With(string step) =>
        Shipped.Changed("front-hot", ("  - id: mark-software\n", $"  - id: odd\n    {step}\n  - id: mark-software\n"));

    private static List<string> Of(string step) =>
        [.. Prover.Prove(With(step)).Findings.Where(f => f.Rule == SafetyRule.Declared && f.Step == "odd").Select(f => f.Sentence)];

    private static string Quoted(string sentence) => sentence.Contains(": ", StringComparison.Ordinal) ? $"\"{sentence}\"" : sentence;
}
