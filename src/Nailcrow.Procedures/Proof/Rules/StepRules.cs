using System.Text.RegularExpressions;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Proof.Rules;

/// <summary>The rules that a step keeps or breaks by itself.</summary>
internal static partial class StepRules
{
    public static IEnumerable<(SafetyRule Rule, string Sentence)> At(ProcedureStep written, ComesBack pattern)
    {
        var step = written.Step;
        if (
            pattern is ComesBack.Unchanged or ComesBack.Cannot
            && step.Records is (Records.Inserted or Records.RebuildStarted) and var records
        )
            yield return (
                SafetyRule.Order,
                $"'{step.Id}' records '{Words.Of(records)}', and a procedure with 'comes-back: {Words.Of(pattern)}' brings no new drive in: "
                    + "nothing at its end would prove that it serves."
            );
        if (step.Erases && !(SaysBay().IsMatch(step.Say) && SaysSerial().IsMatch(step.Say)))
            yield return (
                SafetyRule.ErasedByName,
                $"'{step.Id}' erases and its sentence does not name {{bay}} and {{serial}} or {{part-serial}}."
            );
        if (!step.Erases && step.Kind is StepKind.Do or StepKind.Look && Destroying().Match(step.Say) is { Success: true } word)
            yield return (
                SafetyRule.ErasedByName,
                $"'{step.Id}' says '{word.Value}' and not 'erases: yes', so it could be confirmed without naming bay and serial."
            );
        if (step.Kind == StepKind.Do && step.Records is null && Pulling().Match(step.Say) is { Success: true } pull)
            yield return (
                SafetyRule.PullIsAllowed,
                $"'{step.Id}' says '{pull.Value}' and records nothing; a drive that leaves its bay is 'records: drawn-out'."
            );
        if (
            step.Kind == StepKind.Do
            && step.Records is not (Records.Inserted or Records.Reseated or Records.PutBack)
            && Inserting().Match(step.Say) is { Success: true } insert
        )
            yield return (
                SafetyRule.WaitIsKept,
                $"'{step.Id}' says '{insert.Value}' and records nothing; a drive that goes into its bay is 'records: inserted', 'reseated' or 'put-back'."
            );
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

    [GeneratedRegex(
        @"\b([Ee]rase|[Ww]ipe|[Oo]verwrite|[Ff]ormat|[Ii]nitialise|[Cc]lear the (old|foreign)|[Ss]tart the rebuild)",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Destroying();

    [GeneratedRegex(
        @"\b([Pp]ull the drive|[Dd]raw the drive|[Dd]raw it out|[Ll]ift the drive out|[Tt]ake the drive out)",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Pulling();

    [GeneratedRegex(
        @"\b([Ss]lide the replacement into|[Pp]ut the replacement into|[Pp]ush the replacement into|[Ll]ower the replacement into)",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Inserting();
}
