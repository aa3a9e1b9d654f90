using Nailcrow.Core.Procedures;

namespace Nailcrow.Procedures.Language;

/// <summary>The words that an answer may lead to beside a step.</summary>
internal static class Targets
{
    public const string GoOn = "go on";
    public const string End = "end";

    /// <summary>Inside a loop: leave the rest of its steps for this drive.</summary>
    public const string NextDrive = "next drive";

    public static readonly IReadOnlyList<string> Words = [GoOn, End, NextDrive, StepAnswer.Back, StepAnswer.HandOver];

    public static IEnumerable<string> Of(ProcedureStep step) =>
        step.Step.Answers.Select(a => a.Next).Append(step.Then).Append(step.NotSo).Append(step.Step.Until).OfType<string>();
}
