using Nailcrow.Core.Procedures;

namespace Nailcrow.Procedures.Proof.Rules;

/// <summary>Questions whose answers change nothing: asking costs the engineer's attention, which is for what matters.</summary>
internal static class UnusedAnswers
{
    public static IEnumerable<ProcedureStep> Of(Procedure procedure, Graph graph)
    {
        var sent = procedure.Steps.SelectMany(s => s.Step.With ?? []).ToHashSet();
        return graph.Nodes.Where(n => n.Writes < 0 && !sent.Contains(n.Step.Id) && AsksForNothing(n)).Select(n => n.Step);
    }

    private static bool AsksForNothing(Node node) =>
        node.Step.Step is { Kind: StepKind.Read or StepKind.Look, Records: null }
        && node.Leads.Where(l => l.Answer != RunStep.NotSo).Select(l => l.To).Distinct().Count() == 1;
}
