using Nailcrow.Core.Appliances;

namespace Nailcrow.Core.Procedures;

/// <summary>What is known when a sheet is compiled.</summary>
public sealed record SheetFacts(
    ApplianceModel Model,
    string Asset,
    string ChassisSerial,
    string Site,
    string Location,
    string Array,
    Bay Target,
    string PartSerial
);

/// <summary>Turns a procedure into the run sheet of one ticket.</summary>
public static class SheetCompiler
{
    // In 'normal-now', stands for whatever the model is known to do while it rebuilds.
    private const string RebuildAlarms = "rebuild";

    public static Parsed<RunSheet> Compile(Procedure procedure, SheetFacts facts, Guid id)
    {
        foreach (var (property, values) in procedure.AppliesTo)
            if (!values.Contains(ModelProperties.Of(facts.Model, property)))
                return new Parsed<RunSheet>.Refused(
                    $"Procedure '{procedure.Id}' is for {property} {string.Join(" or ", values)}; {facts.Model.Maker} {facts.Model.Name} is {ModelProperties.Of(facts.Model, property)}."
                );
        if (facts.Target.Serial is not { } serial)
            return new Parsed<RunSheet>.Refused($"Bay {facts.Target.Label} holds no drive with a serial in the last snapshot; take a new one.");
        var kept = procedure.Steps.Where(s => ModelProperties.Hold(facts.Model, s.When)).ToList();
        var after = Following(procedure, kept);
        return new Parsed<RunSheet>.Ok(
            new(id, procedure.Id, procedure.Title, procedure.Version, facts.Array, facts.Target.Label, serial, facts.ChassisSerial,
                [.. kept.Select(s => Settle(s, facts, after))])
        );
    }

    private static RunStep Settle(ProcedureStep written, SheetFacts facts, Func<ProcedureStep, string?, string?> after)
    {
        var seconds = written.SecondsFrom is { } length ? ModelProperties.LengthOf(facts.Model, length) : written.Step.Seconds;
        var straight = after(written, written.Then ?? ProcedureLinks.GoOn);
        var answers = written.Step.Answers.Select(a => a with { Next = after(written, a.Next) }).ToList();
        if (written.Step.Kind == StepKind.Scan && !answers.Exists(a => a.Answer == "exact"))
            answers.Insert(0, new("exact", "Exact", straight));
        else if (answers.Count == 0 || (written.Step.Kind != StepKind.Look && written.Step.Kind != StepKind.Scan && !answers.Exists(a => a.Answer == RunStep.Done)))
            answers.Insert(0, new(RunStep.Done, "Done", straight));
        var normal = written.Step.NormalNow?.SelectMany(n => n == RebuildAlarms ? facts.Model.NormalDuringRebuild : [n]).ToList();
        return Blanks.Fill(written.Step with { Answers = answers, Seconds = seconds, NormalNow = normal }, Values(facts));
    }

    /// <summary>Where a step leads once the steps that do not apply are gone: to the first kept one at or after the target.</summary>
    private static Func<ProcedureStep, string?, string?> Following(Procedure procedure, List<ProcedureStep> kept)
    {
        var all = procedure.Steps.ToList();
        var keptIds = kept.Select(s => s.Step.Id).ToHashSet();
        string? FirstKept(int from) => all.Skip(from).Select(s => s.Step.Id).FirstOrDefault(keptIds.Contains);
        return (step, target) => target switch
        {
            null or ProcedureLinks.End => null,
            ProcedureLinks.GoOn => FirstKept(all.IndexOf(step) + 1),
            _ => FirstKept(all.FindIndex(s => s.Step.Id == target)),
        };
    }

    private static Dictionary<string, string> Values(SheetFacts facts) =>
        new()
        {
            ["asset"] = facts.Asset,
            ["chassis-serial"] = facts.ChassisSerial,
            ["location"] = facts.Location,
            ["site"] = facts.Site,
            ["array"] = facts.Array,
            ["bay"] = facts.Target.Label,
            ["name"] = facts.Target.Name ?? "(no name)",
            ["serial"] = facts.Target.Serial ?? "",
            ["part-serial"] = facts.PartSerial,
            ["wait-after-pull"] = facts.Model.WaitAfterPullSeconds.ToString(),
            ["carrier-screws"] = facts.Model.CarrierScrews.ToString(),
            ["latch"] = facts.Model.Latch,
            ["carrier"] = facts.Model.Carrier,
            ["model"] = $"{facts.Model.Maker} {facts.Model.Name}",
        };
}
