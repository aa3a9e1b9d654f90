using System.Text.RegularExpressions;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Terms;
using Nailcrow.Procedures.Proof.Declared;

namespace Nailcrow.Procedures.Proof.Rules;

/// <summary>The rules that a step keeps or breaks by itself.</summary>
internal static partial class StepRules
{
    public static IEnumerable<(SafetyRule Rule, string Sentence)> At(ProcedureStep written, ComesBack pattern)
    {
        var step = written.Step;
        if (
            (pattern, step.Records)
                is
                    (ComesBack.Unchanged, Records.Inserted or Records.RebuildStarted)
                    or
                    (ComesBack.Cannot, Records.RebuildStarted)
            && step.Records is { } records
        )
            yield return (
                SafetyRule.Order,
                $"'{step.Id}' records '{Words.Of(records)}', and a procedure with 'comes-back: {Words.Of(pattern)}' brings no new drive in: "
                    + "nothing at its end would prove that it serves."
            );
        if (pattern == ComesBack.Added && (step.Records is Records.DrawnOut || step.Against == ScanTarget.DriveOut))
            yield return (
                SafetyRule.Order,
                $"'{step.Id}' is about a drive that comes out; with 'comes-back: added' nothing does, and a bay is filled that was seen to be empty."
            );
        if (pattern == ComesBack.Added && Blanks.In(step).Any(b => b is "serial" or "name"))
            yield return (
                SafetyRule.Order,
                $"'{step.Id}' names the drive that comes out ({{serial}} or {{name}}); with 'comes-back: added' none does. Say {{part-serial}}."
            );
        if (pattern != ComesBack.Added && step.Gate == GateFact.BayEmpty)
            yield return (
                SafetyRule.SerialIsCompared,
                $"'{step.Id}' needs an empty bay: a drive came out of it, and is read. Only 'comes-back: added' fills a bay that was empty."
            );
        if (step.Erases && !(SaysBay().IsMatch(step.Say) && SaysSerial().IsMatch(step.Say)))
            yield return (
                SafetyRule.ErasedByName,
                $"'{step.Id}' erases and its sentence does not name {{bay}} and {{serial}} or {{part-serial}}."
            );
        if (!step.Erases && step.Records is (Records.RebuildStarted or Records.OldDataCleared) and var emptied)
            yield return (
                SafetyRule.ErasedByName,
                $"'{step.Id}' records '{Words.Of(emptied)}' and not 'erases: yes', so it could be confirmed without naming bay and serial."
            );
        foreach (var sentence in DeclaredRules.At(written))
            yield return (SafetyRule.Declared, sentence);
        if (WaysOut.MustHave(step) && written.NotSo is null && !step.Answers.Any(a => a.Answer != RunStep.Done))
            yield return (
                SafetyRule.WayOut,
                step.Kind == StepKind.Gate
                    ? $"Gate '{step.Id}' may stay shut and nothing leads away from it; add 'not-so:' or another answer."
                    : $"'{step.Id}' says what one should see and not where to go if it does not come; add 'not-so:'."
            );
        if (step.Kind == StepKind.Call && step.With is not [_, ..])
            yield return (
                SafetyRule.WayOut,
                $"Call '{step.Id}' sends no facts along; add 'with:', for example [asset, array, bay, serial]."
            );
    }

    // A person types what the screen shows: the sentence is where the two are told.
    [GeneratedRegex(@"\{bay\}")]
    private static partial Regex SaysBay();

    [GeneratedRegex(@"\{(part-)?serial\}")]
    private static partial Regex SaysSerial();
}
