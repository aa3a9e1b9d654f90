using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures;

/// <summary>What differs between two versions of a procedure.</summary>
public static class VersionComparison
{
    /// <summary>What differs, in the order of the newer version; what is gone comes last.</summary>
    public static IReadOnlyList<StepChange> Between(Procedure before, Procedure after)
    {
        var (old, now) = (before.Steps.ToDictionary(s => s.Id), after.Steps.ToDictionary(s => s.Id));
        var changes = after
            .Steps.SelectMany(s => old.TryGetValue(s.Id, out var was) ? Differing(was, s) : [new StepChange(s.Id, "added", null, Told(s))])
            .ToList();
        changes.AddRange(before.Steps.Where(s => !now.ContainsKey(s.Id)).Select(s => new StepChange(s.Id, "removed", Told(s), null)));
        changes.AddRange(Moved(before, after));
        return changes;
    }

    private static IEnumerable<StepChange> Differing(ProcedureStep before, ProcedureStep after) =>
        Told(before) == Told(after) ? [] : [new StepChange(after.Id, "changed", Told(before), Told(after))];

    /// <summary>A step that stands before another one it stood after.</summary>
    private static IEnumerable<StepChange> Moved(Procedure before, Procedure after)
    {
        var kept = after.Steps.Where(s => before.IndexOf(s.Id) >= 0).Select(s => s.Id).ToList();
        for (var i = 1; i < kept.Count; i++)
            if (before.IndexOf(kept[i]) < before.IndexOf(kept[i - 1]))
                yield return new StepChange(kept[i], "moved", null, $"now after '{kept[i - 1]}'");
    }

    /// <summary>All of a step that its reader sees or that decides where it leads.</summary>
    private static string Told(ProcedureStep step)
    {
        var s = step.Step;
        string?[] parts =
        [
            $"{Words.Of(s.Kind)}: {s.Say}",
            Part("see", s.See),
            Part("hear", s.Hear),
            Part("if-not", s.IfNot),
            Part("needs", s.Gate is { } gate ? Words.Of(gate) : null),
            Part("records", s.Records is { } records ? Words.Of(records) : null),
            Part("when", step.When == Condition.Always ? null : $"{step.When}"),
            Part("answers", s.Answers.Count == 0 ? null : string.Join(", ", s.Answers.Select(a => $"{a.Answer} to {a.Next}"))),
            Part("then", step.Then),
            Part("not-so", step.NotSo),
            Part("seconds", step.SecondsFrom ?? (s.Seconds is { } seconds ? $"{seconds}" : null)),
            Part("opens", s.Opens),
            Part("closes", s.Closes),
            s.Erases ? "erases: yes" : null,
            step.MovesNothing ? "moves: nothing" : null,
            Part("mark", s.Mark),
            Part("means", step.Means.Count == 0 ? null : string.Join(", ", step.Means.Select(m => $"{m.Key}: {m.Value}"))),
        ];
        return string.Join("\n", parts.OfType<string>());
    }

    private static string? Part(string name, string? text) => text is null ? null : $"{name}: {text}";
}
