using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Language;

/// <summary>What each kind of step cannot do without, and what makes no sense on it.</summary>
internal static class StepDemands
{
    public static void Check(Page page, RunStep step, string? length)
    {
        foreach (var sentence in Of(step, length))
            page.Report(sentence);
    }

    private static IEnumerable<string> Of(RunStep step, string? length)
    {
        if (step.Kind == StepKind.Gate && step.Gate is null)
            yield return $"Gate '{step.Id}' says nothing it needs; add 'needs:' with one of {Words.List<GateFact>()}.";
        if (step.Kind != StepKind.Gate && step.Gate is not null)
            yield return $"'{step.Id}' is a {Words.Of(step.Kind)} and needs nothing; only a gate has 'needs:'.";
        if (step.Kind is StepKind.Hold or StepKind.Limit && length is null)
            yield return $"'{step.Id}' has no 'seconds:'.";
        if (step.Kind == StepKind.Limit && step.Until is null)
            yield return $"Limit '{step.Id}' has no 'until:' with the step that ends it.";
        if (step.Kind == StepKind.Scan && step.Against is null)
            yield return $"Scan '{step.Id}' is compared to nothing; add 'against:' with one of {Words.List<ScanTarget>()}.";
        if (step.Kind == StepKind.Scan && step.Leading("different") is null)
            yield return $"Scan '{step.Id}' has no answer for 'different'; say where a wrong serial leads.";
        if (step.Kind == StepKind.Look && step.Answers.Count < 2)
            yield return $"Look '{step.Id}' asks a question; give at least two answers.";
        if (step.Kind == StepKind.Light && step.Records is not (Records.LightOn or Records.LightOff))
            yield return $"Light '{step.Id}' has to say 'records: light-on' or 'records: light-off'.";
        if (step.Records is Records.BayMark or Records.ChassisMark && step.Mark is null)
            yield return $"'{step.Id}' records a mark; name it with 'mark:' so that two marks can be told apart.";
        if (step is { Records: Records.BayMark or Records.ChassisMark } and { Kind: not (StepKind.Look or StepKind.Scan) })
            yield return $"'{step.Id}' is a {Words.Of(step.Kind)}; a mark is something seen or read: only a 'look' or a 'scan' records one.";
        if (
            step is { Records: { } records and (Records.BayMark or Records.ChassisMark), Mark: { } mark }
            && NotOneOf(records, mark) is { } others
        )
            yield return $"'{mark}' is no mark of a {(records == Records.BayMark ? "bay" : "machine")}; accepted: {others}";
        if (step.Against == ScanTarget.DriveOut != (step.Records == Records.Pulled))
            yield return step.Against == ScanTarget.DriveOut
                ? $"'{step.Id}' reads the serial of the drive that came out; add 'records: pulled'."
                : $"'{step.Id}' records 'pulled', which is the serial of a drive that came out: a 'scan' with 'against: drive-out'.";
        if (step.Erases && step.Kind != StepKind.Do)
            yield return $"'{step.Id}' erases; only a 'do' can, and its answer names bay and serial.";
        if (step.Decides is not null && step.Kind != StepKind.Look)
            yield return $"'{step.Id}' is a {Words.Of(step.Kind)}; only a 'look' is decided by a role.";
        if (step.AllowsPull && step.Kind != StepKind.Call)
            yield return $"'{step.Id}' is a {Words.Of(step.Kind)}; only a call, answered by a lead, allows anything.";
        if (step.Unit is { } unit && (step.Kind != StepKind.Read || Quantity.Measures(unit) is null))
            yield return step.Kind != StepKind.Read
                ? $"'{step.Id}' is a {Words.Of(step.Kind)}; only a 'read' has a unit."
                : $"'{unit}' is no unit; accepted: {string.Join(", ", Quantity.AllUnits)}.";
        if (
            step.Records == Records.Usable
            && !(step is { Kind: StepKind.Read, Unit: { } size } && Quantity.Measures(size) == Dimension.Size)
        )
            yield return $"'{step.Id}' records what the array holds: a 'read' with a unit of bytes, as 'unit: TB'.";
        if (step.Records is Records.FoundOff or Records.SwitchedOn && step.Kind != StepKind.Read)
            yield return $"'{step.Id}' records who had the machine switched off or on: a 'read', whose answer says it.";
        if (step.Unit is null && (step.AtLeast ?? step.AtMost) is not null)
            yield return $"'{step.Id}' has a range and no 'unit:'.";
        if (step.AtLeast > step.AtMost)
            yield return $"'{step.Id}' takes at least {step.AtLeast} and at most {step.AtMost}; nothing is both.";
    }

    private static string? NotOneOf(Records records, string mark)
    {
        var names = Marks.Of(records).Select(m => m.Name).ToList();
        return names.Contains(mark) ? null : string.Join(", ", names) + "." + Nearest.Hint(mark, names);
    }
}
