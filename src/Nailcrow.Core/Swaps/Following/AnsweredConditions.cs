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
        if (when.Contains(AnswerFacts.OfLastDrive, StringComparison.Ordinal))
            foreach (var step in sheet.Steps.Where(s => s.Drive is not null && when.Contains(LastOf(s), StringComparison.Ordinal)))
                facts[AnswerFacts.Prefix + LastOf(step)] = AnswerFacts.Of(step);
        var (condition, problem, _) = ConditionParser.Parse(when, facts);
        return problem is null && condition is not null
            ? condition.Holds(fact => Given(Asked(fact[AnswerFacts.Prefix.Length..], sheet, run), run)) == true
            : throw new InvalidDataException($"The sheet's condition '{when}' cannot be read: {problem}");
    }

    private static RunStep? Asked(string name, RunSheet sheet, Run run)
    {
        if (!name.EndsWith(AnswerFacts.OfLastDrive, StringComparison.Ordinal))
            return sheet.Step(name);
        var last = run.Visits.Max(v => sheet.Step(v.Step)?.Drive);
        return sheet.Steps.FirstOrDefault(s => s.Drive == last && LastOf(s) == name);
    }

    /// <summary>The name under which the answers of a step's kind are asked from outside the loop.</summary>
    private static string LastOf(RunStep step) => step.Id.Split('.')[0] + AnswerFacts.OfLastDrive;

    /// <summary>The answer last given, a value in its base unit; the word for no answer where there is none.</summary>
    private static string Given(RunStep? step, Run run) =>
        step is null || run.Visits.FindLast(v => v.Step == step.Id) is not { } visit ? AnswerFacts.Unanswered
        : step is { Kind: StepKind.Read, Unit: { } unit }
        && Quantity.Parse(visit.Answer, Quantity.Measures(unit) ?? Dimension.Count, unit).Is(out var value, out _)
            ? value.ToString(CultureInfo.InvariantCulture)
        : visit.Branch;
}
