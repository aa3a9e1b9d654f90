using Nailcrow.Core.Procedures.Language;

namespace Nailcrow.Core.Procedures.Proof;

/// <summary>
/// Walks every path of a procedure, breadth first so that the first way found to anything is a shortest one. States that do
/// not differ in anything that is asked later are one state, so that independent conditions add up instead of multiplying.
/// </summary>
internal sealed class Explorer
{
    // What ships has some thousands. A procedure with a million situations is no instruction that anybody can judge.
    private const int MostStates = 1_000_000;

    private readonly Procedure _procedure;
    private readonly Graph _graph;
    private readonly Dictionary<Spot, int> _known = [];
    private readonly List<(Spot Spot, int From, string Answer, bool Assumed)> _states = [];
    private readonly List<List<int>> _before = [];
    private List<string> _begun = [];
    private readonly HashSet<int> _reached = [];
    private readonly HashSet<int> _passed = [];
    private readonly HashSet<int> _ended = [];
    private readonly Dictionary<(SafetyRule, int, string), Finding> _findings = [];

    private Explorer(Procedure procedure) => (_procedure, _graph) = (procedure, new(procedure));

    public static ProofResult Of(Procedure procedure)
    {
        var explorer = new Explorer(procedure);
        explorer.Walk();
        return new(explorer._states.Count, [.. explorer._findings.Values, .. explorer.AfterAll()]);
    }

    private void Walk()
    {
        _begun = [.. Beginnings(new string('\0', _graph.Variables.Count))];
        foreach (var values in _begun)
            Arrive(0, Begun(), values, -1, -1, "");
        for (var at = 0; at < _states.Count && _states.Count <= MostStates; at++)
            Leave(at, _graph.Nodes[_states[at].Spot.Node], _states[at].Spot);
    }

    /// <summary>A recovery may begin with a drive in the engineer's hand.</summary>
    private Situation Begun() =>
        new(_procedure.ComesBack == ComesBack.Unchanged && _procedure.Steps[0].Step.Against == ScanTarget.DriveOut ? Known.DriveOut : Known.Nothing);

    /// <summary>Everything that the procedure is written for, as far as its own condition tells it apart.</summary>
    private IEnumerable<string> Beginnings(string values)
    {
        for (var v = 0; v < _graph.Variables.Count; v++)
            if (_graph.Variables.IsAnswer(v))
                values = Set(values, v, _graph.Variables.PlaceOf(v, AnswerFacts.Unanswered));
        return Split(values, _procedure.AppliesTo);
    }

    private IEnumerable<string> Split(string values, Conditions.Condition condition) =>
        condition.Holds(Lookup(values)) is { } decided ? decided ? [values] : []
        : condition.Facts().Select(_graph.Variables.IndexOf).First(v => values[v] == '\0') is var open
            ? Enumerable.Range(0, _graph.Variables.Values(open).Count).SelectMany(value => Split(Set(values, open, value), condition))
            : [];

    private void Leave(int at, Node node, Spot spot)
    {
        foreach (var open in node.Asks)
            if (spot.Values[open] == '\0')
            {
                for (var value = 0; value < _graph.Variables.Values(open).Count; value++)
                    Arrive(spot.Node, spot.Now, Set(spot.Values, open, value), spot.LeftFor, at, $"{_graph.Variables.Name(open)} is {_graph.Variables.Told(open, value)}", assumed: true);
                return;
            }
        if (node.Step.When.Holds(Lookup(spot.Values)) == false)
        {
            Follow(at, spot, Lead.GoOn, spot.Now, spot.Values, "");
            return;
        }
        _reached.Add(spot.Node);
        foreach (var (rule, sentence) in PathRules.At(node, spot.Now, Value(spot.Values, ModelProperties.Swapped)))
            Find(rule, spot.Node, sentence, at, RunStep.Done);
        foreach (var (answer, to) in node.Leads)
            Answer(at, node, spot, answer, to);
    }

    private void Answer(int at, Node node, Spot spot, string answer, int to)
    {
        if (answer == RunStep.Done && node.Step.Step.Kind == StepKind.Gate)
        {
            if (!Effects.CanPass(node, spot.Now, _procedure.ComesBack == ComesBack.ByRebuild ? Value(spot.Values, ModelProperties.RebuildStarts) : null))
                return;
            _passed.Add(spot.Node);
        }
        var now = Effects.Of(node, answer, spot.Now);
        // The marks that led to a wrong drive do not count again; whether another one is left depends on what was seen, so both are followed.
        if (now.Has(Known.WrongDrive) && !spot.Now.Has(Known.WrongDrive))
            Answered(at, node, spot, now.With(Known.NoMarkLeft), answer, to);
        if (!now.Has(Known.WrongDrive) || spot.Now.Has(Known.WrongDrive) || _graph.BayMarks > 2)
            Answered(at, node, spot, now, answer, to);
    }

    private void Answered(int at, Node node, Spot spot, Situation now, string answer, int to)
    {
        if (node.Writes < 0)
            Follow(at, spot, to, now, spot.Values, answer);
        else if (node.Step.Step.Kind == StepKind.Read && answer == RunStep.Done)
            for (var value = 1; value < _graph.Variables.Values(node.Writes).Count; value++)
                Follow(at, spot, to, now, Set(spot.Values, node.Writes, value), $"{_graph.Variables.Values(node.Writes)[value]}");
        else
            Follow(at, spot, to, now, Set(spot.Values, node.Writes, _graph.Variables.PlaceOf(node.Writes, answer)), answer);
    }

    private void Follow(int at, Spot spot, int to, Situation now, string values, string answer)
    {
        switch (to)
        {
            case Lead.End or Lead.HandOver:
                End(at, spot.Node, to == Lead.HandOver, now, answer);
                break;
            case Lead.Back:
                if (spot.LeftFor >= 0)
                    Arrive(spot.LeftFor, now, values, -1, at, answer);
                break;
            case Lead.GoOn when _graph.Nodes[spot.Node].Step.Loop is not null && _graph.LoopEnd(spot.Node) == spot.Node:
            case Lead.NextDrive:
                NextDrive(at, spot, now, values, answer);
                break;
            case Lead.GoOn:
                Step(at, spot, spot.Node + 1, now, values, answer);
                break;
            default:
                Step(at, spot, to, now, values, answer);
                break;
        }
    }

    /// <summary>Another drive, or none left: both are followed.</summary>
    private void NextDrive(int at, Spot spot, Situation now, string values, string answer)
    {
        var swapping = _graph.Swapping.Contains(_graph.Nodes[spot.Node].Step.Loop ?? -1);
        if (swapping && PathRules.AtNextDrive(_procedure.ComesBack, now) is { } broken)
            Find(SafetyRule.ProvenDone, spot.Node, broken, at, answer);
        if (_graph.SeveralDrives)
            Step(at, spot, _graph.LoopStart(spot.Node), swapping ? now.ForNextDrive() : now, Forgotten(values, spot.Node), answer.Length == 0 ? "another drive" : $"{answer}, another drive");
        Step(at, spot, _graph.LoopEnd(spot.Node) + 1, now, values, answer.Length == 0 ? "no other drive" : answer);
    }

    /// <summary>Nothing of this drive's loop has been answered yet for the next one.</summary>
    private string Forgotten(string values, int node)
    {
        for (var v = 0; v < _graph.Variables.Count; v++)
            if (_graph.Variables.IsAnswer(v) && _graph.Nodes.Any(n => n.Writes == v && n.Step.Loop == _graph.Nodes[node].Step.Loop))
                values = Set(values, v, _graph.Variables.PlaceOf(v, AnswerFacts.Unanswered));
        return values;
    }

    private void Step(int at, Spot spot, int to, Situation now, string values, string answer)
    {
        if (to >= _graph.Nodes.Count)
        {
            End(at, spot.Node, false, now, answer);
            return;
        }
        if (_graph.Nodes[to].OnlyComesBack)
        {
            // The lead answers, and one stands where one stood: nothing is different, so there is no state to add.
            _reached.Add(to);
            if (spot.LeftFor < 0 && _graph.Nodes[spot.Node].Step.Step.Kind != StepKind.Call)
                return;
        }
        var calls = _graph.Nodes[to].Step.Step.Kind == StepKind.Call;
        var fromCall = _graph.Nodes[spot.Node].Step.Step.Kind == StepKind.Call;
        Arrive(to, now, values, calls ? fromCall ? spot.LeftFor : spot.Node : -1, at, answer);
    }

    private void Arrive(int node, Situation now, string values, int leftFor, int from, string answer, bool assumed = false)
    {
        var spot = new Spot(node, now, Lasting(values, _graph.Alive[node], leftFor), leftFor);
        if (!_known.TryGetValue(spot, out var at))
        {
            _known[spot] = at = _states.Count;
            _states.Add((spot, from, answer, assumed));
            _before.Add([]);
        }
        if (from >= 0)
            _before[at].Add(from);
    }

    /// <summary>Only what is asked from here on keeps two states apart.</summary>
    private string Lasting(string values, bool[] alive, int leftFor) =>
        string.Create(values.Length, (values, alive, back: leftFor >= 0 ? _graph.Alive[leftFor] : alive), static (span, s) =>
        {
            for (var i = 0; i < span.Length; i++)
                span[i] = s.alive[i] || s.back[i] ? s.values[i] : '\0';
        });

    private void End(int at, int node, bool handedOver, Situation now, string answer)
    {
        _ended.Add(at);
        foreach (var (rule, sentence) in PathRules.AtEnd(_procedure.ComesBack, handedOver, now, _graph.Things.Told(now.Open)))
            Find(rule, node, sentence, at, answer);
    }

    private void Find(SafetyRule rule, int node, string sentence, int at, string answer)
    {
        var step = _graph.Nodes[node].Step;
        _findings.TryAdd((rule, node, sentence), new(rule, step.Id, step.At, sentence, [.. PathTo(at), new(step.Id, step.Step.Say, answer.Length == 0 ? "(not done here)" : answer)]));
    }

    /// <summary>The answers that led to a state, oldest first.</summary>
    private List<PathStep> PathTo(int at)
    {
        var path = new List<PathStep>();
        for (var (i, from) = (at, _states[at].From); from >= 0; (i, from) = (from, _states[from].From))
        {
            var (step, (_, _, answer, assumed)) = (_graph.Nodes[_states[from].Spot.Node].Step, _states[i]);
            if (assumed)
                path.Add(new(null, "", answer));
            else if (answer.Length > 0)
                path.Add(new(step.Id, step.Step.Say, answer));
        }
        path.Reverse();
        return path;
    }

    /// <summary>What only the whole walk tells: steps never reached, gates never open, ways that end nowhere; and what each step breaks by itself.</summary>
    private IEnumerable<Finding> AfterAll()
    {
        if (_states.Count > MostStates)
        {
            yield return Alone(SafetyRule.Ends, _procedure.Steps[0], $"The procedure has more than {MostStates:N0} situations; nobody could judge it. Ask fewer things that stay open at once.");
            yield break;
        }
        foreach (var step in _procedure.Steps)
            foreach (var (rule, sentence) in StepRules.At(step))
                yield return Alone(rule, step, sentence);
        for (var i = 0; i < _graph.Nodes.Count; i++)
            if (!_reached.Contains(i) && !IsForOthers(i))
                yield return Alone(SafetyRule.Reached, _graph.Nodes[i].Step, $"No path leads to '{_graph.Nodes[i].Step.Id}'.");
            else if (_reached.Contains(i) && _graph.Nodes[i].Step.Step is { Kind: StepKind.Gate, Gate: { } fact } && !_passed.Contains(i))
                yield return Alone(SafetyRule.Supplied, _graph.Nodes[i].Step, $"Gate '{_graph.Nodes[i].Step.Id}' needs {Words.Of(fact)}, and nothing before it supplies that.");
        foreach (var unused in UnusedAnswers.Of(_procedure, _graph))
            yield return Alone(SafetyRule.Used, unused, $"'{unused.Id}' asks something that nothing uses: it records nothing, no condition names it, no call sends it along and every answer leads to the same place.");
        if (NoWayOut() is { } lost)
            yield return lost;
    }

    /// <summary>A shared piece holds steps for machines that this procedure is not written for.</summary>
    private bool IsForOthers(int node) =>
        _graph.Nodes[node].Step is var step && step.At.File != _procedure.File && _begun.TrueForAll(values => step.When.Holds(Lookup(values)) == false);

    private static Finding Alone(SafetyRule rule, ProcedureStep step, string sentence) => new(rule, step.Id, step.At, sentence, []);

    /// <summary>The nearest state from which no end can be reached.</summary>
    private Finding? NoWayOut()
    {
        var leads = new bool[_states.Count];
        var open = new Stack<int>(_ended);
        while (open.TryPop(out var at))
            if (!leads[at])
            {
                leads[at] = true;
                _before[at].ForEach(open.Push);
            }
        var lost = Array.IndexOf(leads, false);
        if (lost < 0)
            return null;
        var step = _graph.Nodes[_states[lost].Spot.Node].Step;
        return new(SafetyRule.Ends, step.Id, step.At, $"From '{step.Id}' no end can be reached any more.", PathTo(lost));
    }

    private Func<string, string?> Lookup(string values) => fact => Value(values, fact);

    private string? Value(string values, string fact) => _graph.Variables.IndexOf(fact) is var v and >= 0 && values[v] is not '\0' and var place ? _graph.Variables.Values(v)[place - 1] : null;

    private static string Set(string values, int variable, int value) =>
        string.Create(values.Length, (values, variable, value), static (span, s) =>
        {
            s.values.CopyTo(span);
            span[s.variable] = (char)(s.value + 1);
        });
}
