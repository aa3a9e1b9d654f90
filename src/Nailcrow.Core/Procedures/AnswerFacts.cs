using Nailcrow.Core.Procedures.Conditions;

namespace Nailcrow.Core.Procedures;

/// <summary>What a condition may say of the answers given so far.</summary>
public static class AnswerFacts
{
    public const string Prefix = "answer.";

    /// <summary>The value of an answer that nobody has given.</summary>
    public const string Unanswered = "unanswered";

    /// <summary>
    /// Follows a step's name where it is answered for each drive and asked from outside their loop: what was answered of the drive that
    /// was worked on last.
    /// </summary>
    public const string OfLastDrive = ".last";

    public static FactType Of(RunStep step) =>
        step.Kind == StepKind.Read
            ? step.Unit is { } unit
                ? new FactType.Number(Quantity.Measures(unit) ?? Dimension.Count)
                : new FactType.Text()
            : new FactType.OneOf([.. Branches(step), Unanswered]);

    /// <summary>Everything a step can be answered with, its way out included.</summary>
    private static IEnumerable<string> Branches(RunStep step) => (
            step.Kind == StepKind.Scan ? ["exact"]
            : step.Kind == StepKind.Look ? []
            : new[] { RunStep.Done }
        ).Concat(step.Answers.Select(a => a.Answer)).Append(RunStep.NotSo).Distinct();
}
