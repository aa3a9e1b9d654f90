using System.Text.RegularExpressions;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Language;

/// <summary>Checks that every branch leads somewhere it may, every blank can be filled, and no variant leads around its skeleton.</summary>
internal sealed partial class ProcedureLinks(IReadOnlyList<ProcedureStep> steps, bool fromSkeleton, Action<Place, string> report)
{
    private readonly Dictionary<string, int> _places = steps
        .Select((s, i) => (s.Id, i))
        .DistinctBy(s => s.Id)
        .ToDictionary(s => s.Id, s => s.i);

    public void Check()
    {
        foreach (var twice in steps.GroupBy(s => s.Id).Where(g => g.Count() > 1))
            Report(twice.Last(), $"Step '{twice.Key}' stands {Stands(twice.First(), twice.Last())} already; an id is used once.");
        foreach (var unsayable in steps.Where(s => !Id().IsMatch(s.Id)))
            Report(
                unsayable,
                $"'{unsayable.Id}' is no id; accepted: small letters, digits and hyphens, beginning with a letter. Conditions name steps by it."
            );
        foreach (var reserved in steps.Where(s => Targets.Words.Contains(s.Id)))
            Report(reserved, $"'{reserved.Id}' is a word of its own and no step's id.");
        for (var i = 0; i < steps.Count; i++)
            Check(steps[i], i);
    }

    private void Check(ProcedureStep step, int index)
    {
        foreach (var target in Targets.Of(step).Distinct())
            if (!Targets.Words.Contains(target) && !_places.ContainsKey(target))
                Report(
                    step,
                    $"Step '{step.Id}' leads to '{target}', which is no step here.{Nearest.Hint(target, _places.Keys.Concat(Targets.Words))}"
                );
            else if (Wrong(step, target, index) is { } wrong)
                Report(step, wrong);
        foreach (var blank in Blanks.In(step.Step).Where(b => !Blanks.Known.Contains(b)))
            Report(
                step,
                $"Step '{step.Id}' has the blank '{{{blank}}}', which nothing "
                    + $"fills.{Nearest.Hint(blank, Blanks.Known)} Accepted: {string.Join(", ", Blanks.Known)}."
            );
        foreach (var fact in (step.Step.With ?? []).Where(f => !Blanks.Known.Contains(f) && !_places.ContainsKey(f)))
            Report(
                step,
                $"Call '{step.Id}' sends '{fact}' along, which is neither a blank nor a step.{Nearest.Hint(fact, Blanks.Known.Concat(_places.Keys))}"
            );
        foreach (var asked in step.When.Facts().Where(IsOfAnotherLoop).Distinct())
            Report(
                step,
                $"Step '{step.Id}' asks '{asked}', which is answered for each drive in another loop; nobody knows which drive is meant. Ask it "
                    + "in its own loop."
            );
        if (step.Step.Against == ScanTarget.DriveOut)
            MismatchPutsBack(step);
        if (step.Step.Until is { } until && _places.TryGetValue(until, out var ending) && ending <= index)
            Report(step, $"Limit '{step.Id}' is to end with '{until}', which stands before it; name the step after it that ends it.");

        bool IsOfAnotherLoop(string fact) =>
            fact.StartsWith(AnswerFacts.Prefix, StringComparison.Ordinal)
            && _places.TryGetValue(fact[AnswerFacts.Prefix.Length..], out var at)
            && steps[at].Loop is { } loop
            && step.Loop is { } here
            && loop != here;
    }

    private string? Wrong(ProcedureStep step, string target, int index) =>
        target == StepAnswer.HandOver && step.Step.Kind != StepKind.Call
            ? $"Step '{step.Id}' hands over; only a call does, so that somebody knows."
        : target == StepAnswer.Back && step.Step.Kind != StepKind.Call
            ? $"Step '{step.Id}' leads back; only a call does, to the step that called."
        : target == Targets.NextDrive && step.Loop is null ? $"Step '{step.Id}' leads to the next drive and stands in no loop."
        : fromSkeleton && !step.Demanded && target != step.Step.Until ? AroundTheSkeleton(step, target, index)
        : null;

    /// <summary>What a variant brings may go on, go back, or call; never past something that the skeleton demands.</summary>
    private string? AroundTheSkeleton(ProcedureStep step, string target, int index)
    {
        if (target is Targets.GoOn or StepAnswer.Back or StepAnswer.HandOver || ComesBack(target))
            return null;
        var to = target switch
        {
            Targets.End => steps.Count,
            Targets.NextDrive => LastOfLoop(index) + 1,
            _ => _places[target],
        };
        var passed = steps.Skip(index + 1).Take(Math.Max(0, to - index - 1)).FirstOrDefault(s => s.Demanded);
        return passed is null
            ? null
            : $"Step '{step.Id}' leads to '{target}', past '{passed.Id}', which the skeleton demands; it may go on, back or to a call.";
    }

    /// <summary>A call that leads back skips nothing.</summary>
    private bool ComesBack(string target) =>
        _places.TryGetValue(target, out var at) && steps[at] is { Step.Kind: StepKind.Call, Then: StepAnswer.Back };

    private int LastOfLoop(int index) => steps.Select((s, i) => (s, i)).Last(s => s.s.Loop == steps[index].Loop).i;

    /// <summary>A wrong drive leads straight back into its bay, and nowhere else.</summary>
    private void MismatchPutsBack(ProcedureStep scan)
    {
        if (
            scan.Step.Leading("different")?.Next is { } target
            && _places.TryGetValue(target, out var at)
            && steps[at].Step.Records != Records.PutBack
        )
            Report(
                scan,
                $"A different serial at '{scan.Id}' leads to '{target}', which does not put the drive back; it has to be a step that records put-back."
            );
    }

    [GeneratedRegex("^[a-z][a-z0-9-]*$")]
    private static partial Regex Id();

    private static string Stands(ProcedureStep first, ProcedureStep last) =>
        first.At.File == last.At.File ? $"on line {first.At.Line}" : $"on line {first.At.Line} of {first.At.File}";

    private void Report(ProcedureStep step, string sentence) => report(step.At, sentence);
}
