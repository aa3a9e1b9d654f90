using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Terms;
using Nailcrow.Procedures.Proof.Rules;

namespace Nailcrow.Procedures.Proof;

/// <summary>
/// What only the whole walk tells: steps never reached, gates never open, ways that end nowhere; and what each step breaks by
/// itself.
/// </summary>
/// <param name="graph">All of the procedure.</param>
/// <param name="walked">The main walk.</param>
/// <param name="asides">The walks of what was set aside.</param>
internal sealed class WholeWalk(Procedure procedure, Graph graph, Explorer walked, IReadOnlyList<Explorer> asides)
{
    public IEnumerable<Finding> Findings() =>
        walked.States > Explorer.MostStates
            ?
            [
                Alone(
                    SafetyRule.Ends,
                    procedure.Steps[0],
                    $"The procedure has more than {Explorer.MostStates:N0} situations; nobody could judge it. Ask fewer things that stay open at once."
                ),
            ]
            :
            [
                .. procedure.Steps.SelectMany(OfStep),
                .. Enumerable.Range(0, graph.Nodes.Count).Select(OfNode).OfType<Finding>(),
                .. Unused(),
                .. NoWayOut(),
            ];

    private IEnumerable<Finding> OfStep(ProcedureStep step) =>
        StepRules.At(step, procedure.ComesBack).Select(broken => Alone(broken.Rule, step, broken.Sentence));

    private Finding? OfNode(int node)
    {
        var step = graph.Nodes[node].Step;
        return !walked.Reached(node) && !asides.Any(a => a.Reached(node))
            ? IsForOthers(step)
                ? null
                : Alone(SafetyRule.Reached, step, $"No path leads to '{step.Id}'.")
            : step.Step is { Kind: StepKind.Gate, Gate: { } fact } && !walked.Passed(node)
                ? Alone(
                    SafetyRule.Supplied,
                    step,
                    $"Gate '{step.Id}' needs {Words.Of(fact)}, and nothing before it supplies that.{OneMark(fact)}"
                )
                : null;
    }

    /// <summary>Where two marks were asked for that are one, that is why the gate stays shut.</summary>
    private string OneMark(GateFact fact)
    {
        var records =
            fact == GateFact.BayEstablished ? Records.BayMark
            : fact == GateFact.ChassisEstablished ? Records.ChassisMark
            : (Records?)null;
        var one = procedure
            .Steps.Where(s => s.Step.Records == records && s.Step.Mark is not null)
            .Select(s => s.Step.Mark!)
            .Distinct()
            .GroupBy(m => Marks.SourceOf(records ?? Records.BayMark, m))
            .FirstOrDefault(g => g.Count() > 1);
        return one is null ? "" : $" {string.Join(" and ", one.Select(m => $"'{m}'"))} are one mark: each is {one.Key}.";
    }

    /// <summary>A shared piece holds steps for machines that this procedure is not written for.</summary>
    private bool IsForOthers(ProcedureStep step) =>
        step.At.File != procedure.File && walked.Beginnings.All(values => step.When.Holds(walked.Graph.Variables.In(values)) == false);

    private IEnumerable<Finding> Unused() =>
        UnusedAnswers
            .Of(procedure, graph)
            .Select(s =>
                Alone(
                    SafetyRule.Used,
                    s,
                    $"'{s.Id}' asks something that nothing uses: it records nothing, no condition names it, no call sends "
                        + "it along and every answer leads to the same place."
                )
            );

    private IEnumerable<Finding> NoWayOut()
    {
        if (walked.Lost() is not (>= 0 and var lost))
            yield break;
        var step = graph.Nodes[walked.NodeOf(lost)].Step;
        yield return new(SafetyRule.Ends, step.Id, step.At, $"From '{step.Id}' no end can be reached any more.", walked.PathTo(lost));
    }

    private static Finding Alone(SafetyRule rule, ProcedureStep step, string sentence) => new(rule, step.Id, step.At, sentence, []);
}
