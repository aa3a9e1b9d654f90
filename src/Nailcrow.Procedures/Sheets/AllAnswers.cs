using Nailcrow.Core.Procedures;
using Nailcrow.Procedures.Language;

namespace Nailcrow.Procedures.Sheets;

/// <summary>All ways to answer a step as written, those that go without saying included.</summary>
internal static class AllAnswers
{
    public static IEnumerable<StepAnswer> Of(ProcedureStep step)
    {
        var straight = step.Then ?? Targets.GoOn;
        if (step.Step.Kind == StepKind.Scan && step.Step.Leading("exact") is null)
            yield return new("exact", "Exact", straight);
        if (step.Step.Kind is not (StepKind.Scan or StepKind.Look) && step.Step.Leading(RunStep.Done) is null)
            yield return new(RunStep.Done, "Done", straight);
        foreach (var answer in step.Step.Answers)
            yield return answer;
        if (step.NotSo is { } elsewhere && step.Step.Leading(RunStep.NotSo) is null)
            yield return new(RunStep.NotSo, step.Step.Kind == StepKind.Gate ? "It stays shut" : "I cannot, or it is different", elsewhere);
    }
}
