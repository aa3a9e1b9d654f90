using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Procedures.Language;

namespace Nailcrow.Procedures.Sheets;

/// <summary>A step in its place on the sheet: a step of a loop stands there once for each drive.</summary>
internal sealed record LaidStep(ProcedureStep Written, int Index, int? Drive, string Id, Condition When);

/// <summary>The steps of a sheet in order, and where each target leads on it.</summary>
internal sealed class Layout
{
    private readonly Procedure _procedure;
    private readonly List<LaidStep> _all;
    private readonly Dictionary<(int Index, int Drive), int> _at;
    private readonly List<bool> _kept;
    private readonly int _drives;
    private readonly HashSet<string> _never;

    private Layout(Procedure procedure, SheetFacts facts)
    {
        _procedure = procedure;
        _drives = Math.Max(1, facts.Drives.Count);
        _never = [];
        // A condition asks for earlier steps only, so that in this order each is known when it is asked for.
        foreach (var step in procedure.Steps)
            if (step.When.Holds(fact => Known(fact, facts)) == false)
                _never.Add(AnswerFacts.Prefix + step.Id);
        _all = [.. Unrolled(facts)];
        _at = _all.Select((l, place) => (Key: (l.Index, l.Drive ?? 0), place)).ToDictionary(l => l.Key, l => l.place);
        _kept = [.. _all.Select(l => l.When is not Condition.Constant { Is: false } && !PassesAtOnce(l, facts))];
    }

    public static Layout Of(Procedure procedure, SheetFacts facts) => new(procedure, facts);

    public IEnumerable<LaidStep> Laid => _all.Where((_, place) => _kept[place]);

    /// <summary>The id a target leads to from a step, or one of the words that are no step; null is the end.</summary>
    public string? Lead(LaidStep from, string? target) =>
        target switch
        {
            null or Targets.End => null,
            StepAnswer.Back or StepAnswer.HandOver => target,
            Targets.GoOn => FirstKept(_at[(from.Index, from.Drive ?? 0)] + 1),
            Targets.NextDrive => FirstKept(AfterDrive(from)),
            _ => FirstKept(PlaceOf(from, _procedure.IndexOf(target))),
        };

    /// <summary>The same drive's step where both stand in one loop, else the first drive's.</summary>
    private int PlaceOf(LaidStep from, int index) =>
        _at[(index, _procedure.Steps[index].Loop is { } loop && loop == from.Written.Loop ? from.Drive ?? 0 : 0)];

    private int AfterDrive(LaidStep from) =>
        _all.FindIndex(_at[(from.Index, from.Drive ?? 0)], l => l.Written.Loop != from.Written.Loop || l.Drive != from.Drive)
            is var at
                and >= 0
            ? at
            : _all.Count;

    private string? FirstKept(int from)
    {
        for (var place = from; place < _all.Count; place++)
            if (_kept[place])
                return _all[place].Id;
        return null;
    }

    private IEnumerable<LaidStep> Unrolled(SheetFacts facts)
    {
        var steps = _procedure.Steps;
        for (var i = 0; i < steps.Count; )
        {
            var end = i + 1;
            while (end < steps.Count && steps[i].Loop is not null && steps[end].Loop == steps[i].Loop)
                end++;
            for (var drive = 0; drive < (steps[i].Loop is null ? 1 : _drives); drive++)
            for (var k = i; k < end; k++)
                yield return Lay(k, steps[k].Loop is null ? null : drive, facts);
            i = end;
        }
    }

    private LaidStep Lay(int index, int? drive, SheetFacts facts)
    {
        var step = _procedure.Steps[index];
        return new(
            step,
            index,
            drive,
            IdFor(step, drive),
            step.When.Settled(fact => Known(fact, facts)).Naming(fact => Renamed(fact, step, drive))
        );
    }

    /// <summary>
    /// What is settled before anybody begins: facts of model and ticket, and that a step which is not on the sheet stays
    /// unanswered.
    /// </summary>
    private string? Known(string fact, SheetFacts facts) => facts.Of(fact) ?? (_never.Contains(fact) ? AnswerFacts.Unanswered : null);

    private string IdFor(ProcedureStep step, int? drive) => drive is { } d && _drives > 1 ? $"{step.Id}.{d + 1}" : step.Id;

    /// <summary>Inside a loop an answer is that of the same drive; from outside, that of the drive that was worked on last.</summary>
    private string Renamed(string fact, ProcedureStep from, int? drive)
    {
        if (!fact.StartsWith(AnswerFacts.Prefix, StringComparison.Ordinal))
            return fact;
        var asked = _procedure.Steps[_procedure.IndexOf(fact[AnswerFacts.Prefix.Length..])];
        return AnswerFacts.Prefix
            + (
                asked.Loop is null ? asked.Id
                : asked.Loop == from.Loop ? IdFor(asked, drive)
                : _drives > 1 ? asked.Id + AnswerFacts.OfLastDrive
                : asked.Id
            );
    }

    /// <summary>A wait of no seconds, and a limit of none, is no step.</summary>
    private static bool PassesAtOnce(LaidStep laid, SheetFacts facts) =>
        laid.Written.Step.Kind is StepKind.Hold or StepKind.Limit && SheetCompiler.Seconds(laid.Written, facts) is 0;
}
