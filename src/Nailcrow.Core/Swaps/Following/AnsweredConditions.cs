using System.Globalization;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Conditions;

namespace Nailcrow.Core.Swaps.Following;

/// <summary>Conditions of a sheet that only its own answers settle.</summary>
internal static class AnsweredConditions
{
    public static bool Hold(string when, RunSheet sheet, Run run)
    {
        var facts = sheet
            .Steps.Where(s => when.Contains(s.Id, StringComparison.Ordinal))
            .ToDictionary(s => AnswerFacts.Prefix + s.Id, AnswerFacts.Of);
        var (condition, problem, _) = ConditionParser.Parse(when, facts);
        return problem is null && condition is not null
            ? condition.Holds(fact => Given(sheet.Step(fact[AnswerFacts.Prefix.Length..]), run)) == true
            : throw new InvalidDataException($"The sheet's condition '{when}' cannot be read: {problem}");
    }

    /// <summary>The answer last given, a value in its base unit; the word for no answer where there is none.</summary>
    private static string Given(RunStep? step, Run run) =>
        step is null || run.Visits.FindLast(v => v.Step == step.Id) is not { } visit ? AnswerFacts.Unanswered
        : step is { Kind: StepKind.Read, Unit: { } unit }
        && Quantity.Parse(visit.Answer, Quantity.Measures(unit) ?? Dimension.Count, unit).Is(out var value, out _)
            ? value.ToString(CultureInfo.InvariantCulture)
        : visit.Branch;
}
