using Nailcrow.Core.Procedures;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Swaps.Following;

/// <summary>A step's place on paper.</summary>
/// <param name="Step">The step's id.</param>
/// <param name="Number">Counted from 1: the plain path first, then what is only done otherwise.</param>
/// <param name="IsPlain">It is come to where everything is as it should be.</param>
public sealed record PaperPlace(string Step, int Number, bool IsPlain);

/// <summary>The way a sheet goes where everything is as it should be.</summary>
public static class PlainPath
{
    /// <summary>The answer that a step has then.</summary>
    public static string Answer(RunStep step) =>
        step.Kind == StepKind.Scan ? Words.Of(SerialOutcome.Exact)
        : step.Leading("yes") is not null ? "yes"
        : step.Leading(RunStep.Done) is not null ? RunStep.Done
        : step.Answers.Count > 0 ? step.Answers[0].Answer
        : RunStep.Done;

    /// <summary>What comes after a step then; null at the end.</summary>
    internal static Run After(RunSheet sheet, Run run, RunStep step)
    {
        var plain = Answer(step);
        return run.After(sheet, step, new(step.Id, plain, plain, null, run.Since, ""));
    }

    /// <summary>Every step of a sheet in the order of its paper.</summary>
    public static IReadOnlyList<PaperPlace> OnPaper(RunSheet sheet)
    {
        var plain = new List<string>();
        for (
            var run = Run.Begin(sheet, default);
            sheet.Step(run.Current) is { } step && !plain.Contains(step.Id);
            run = After(sheet, run, step)
        )
            plain.Add(step.Id);
        return
        [
            .. plain
                .Concat(sheet.Steps.Select(s => s.Id).Except(plain))
                .Select((id, nth) => new PaperPlace(id, nth + 1, nth < plain.Count)),
        ];
    }
}
