using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Procedures.Conditions;
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
        return !IsReached(node)
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

    /// <summary>A step that was set aside is done or not on the main walk; whether its condition can hold, its own walk tells.</summary>
    private bool IsReached(int node) =>
        walked.Decides(node) ? walked.Reached(node) : walked.ComesBy(node) && asides.Any(a => a.Decides(node) && a.Reached(node));

    /// <summary>A shared piece holds steps for machines that this procedure is not written for; a step for no machine is for nobody.</summary>
    private bool IsForOthers(ProcedureStep step) =>
        step.At.File != procedure.File
        && walked.Beginnings.All(values => step.When.Holds(Unanswered(walked.Graph.Variables.In(values))) == false)
        && CanHold(step.When);

    /// <summary>What the machine and the ticket tell. A question that is asked may be answered in any way, and one that is not in none.</summary>
    private Func<string, string?> Unanswered(Func<string, string?> known) =>
        fact =>
            !fact.StartsWith(AnswerFacts.Prefix, StringComparison.Ordinal) ? known(fact)
            : procedure.IndexOf(fact[AnswerFacts.Prefix.Length..]) is var asked and >= 0 && IsReached(asked) ? null
            : AnswerFacts.Unanswered;

    // Of a condition over so many facts that trying them all takes long, nobody claims that it never holds.
    private const int MostTried = 100_000;

    /// <summary>Whether a condition holds for any values of the facts it asks for.</summary>
    private bool CanHold(Condition condition)
    {
        var facts = condition.Facts().Distinct().Select(graph.Variables.IndexOf).ToList();
        var ways = facts.Aggregate(1L, (all, v) => Math.Min(MostTried + 1, all * graph.Variables.Values(v).Count));
        return ways > MostTried || Tried(new string('\0', graph.Variables.Count), 0);

        bool Tried(string values, int at) =>
            at == facts.Count
                ? condition.Holds(graph.Variables.In(values)) == true
                : Enumerable
                    .Range(0, graph.Variables.Values(facts[at]).Count)
                    .Any(value => Tried(Variables.With(values, facts[at], value), at + 1));
    }

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
        var shut = walked.ShutFrom(lost).Select(n => $"'{graph.Nodes[n].Step.Id}'").ToList();
        yield return new(
            SafetyRule.Ends,
            step.Id,
            step.At,
            $"From '{step.Id}' no end can be reached any more.{(shut.Count == 0 ? "" : $" What stays shut: {string.Join(", ", shut)}.")}",
            walked.PathTo(lost)
        );
    }

    private static Finding Alone(SafetyRule rule, ProcedureStep step, string sentence) => new(rule, step.Id, step.At, sentence, []);
}
