using Nailcrow.Core.Procedures;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Proof.Declared;

/// <summary>
/// What a step says and what it declares are one: whoever names a drive, a bay, a carrier or an array says what happens to it, and no
/// sentence moves or empties one that the step says nothing of.
/// </summary>
internal static class DeclaredRules
{
    public static IEnumerable<string> At(ProcedureStep step) =>
        Undeclared(step)
            .Concat(Contradicted(step))
            .Concat(Said.Of(step.Step).SelectMany(said => Unanswered(step, said)))
            .Concat(Needless(step));

    private static IEnumerable<string> Undeclared(ProcedureStep step)
    {
        if (!Declarations.SaysWhatHappens(step) && Said.Of(step.Step).FirstOrDefault(Things.IsNamedIn) is { } said)
            yield return $"'{step.Id}' names a drive, bay, carrier or array in '{said.Key}' and does not say what happens to it; add 'records:', "
                + "'erases: yes' or 'moves: nothing'.";
    }

    private static IEnumerable<string> Contradicted(ProcedureStep step)
    {
        if (step.MovesNothing && Declarations.Moves(step))
            yield return $"'{step.Id}' says 'moves: nothing' and "
                + (step.Step.Records is { } records ? $"records '{Words.Of(records)}'" : "erases")
                + "; one of the two is wrong.";
        var heard = Said.Of(step.Step).Where(t => t.IsInstruction).SelectMany(SecondLook.In).ToList();
        foreach (var doing in Enum.GetValues<Doing>())
            if (
                heard.FindAll(h => h.Doing == doing && Declarations.Covers(step, doing, h.Sentence)) is { Count: > 0 } declared
                && declared.TrueForAll(h => h.SaysNotTo)
            )
                yield return $"'{step.Id}' tells somebody not to {declared[0].Word} and declares that it is done; one of the two is wrong.";
    }

    private static IEnumerable<string> Unanswered(ProcedureStep step, Said said) =>
        Asking(step, said)
            .DistinctBy(h => h.Word)
            .Where(h => !step.Means.ContainsKey(h.Word))
            .Select(h =>
                $"'{step.Id}' says '{h.Word}' in '{said.Key}'; "
                + (said.IsInstruction ? Declarations.HowTo(h.Doing) : "make a step of its own of it")
                + $", or say what it means: 'means: {{ {h.Word}: ... }}'."
            );

    private static IEnumerable<string> Needless(ProcedureStep step) =>
        step
            .Means.Keys.Where(word => !Said.Of(step.Step).SelectMany(said => Asking(step, said)).Any(h => h.Word == word))
            .Select(word => $"'{step.Id}' says what '{word}' means, and nothing in it asks for that; take it away.");

    /// <summary>What the second look hears in a text, and the step does not declare.</summary>
    private static IEnumerable<Heard> Asking(ProcedureStep step, Said said) =>
        SecondLook.In(said).Where(h => !h.SaysNotTo && !(said.IsInstruction && Declarations.Covers(step, h.Doing, h.Sentence)));
}
