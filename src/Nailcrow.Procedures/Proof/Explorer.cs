using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Procedures.Proof.Rules;

namespace Nailcrow.Procedures.Proof;

/// <summary>
/// Walks every path of a procedure, as far as a view of it tells them apart, breadth first so that the first way found to
/// anything is a shortest one. States that do not differ in anything that is asked later are one state.
/// </summary>
internal sealed class Explorer
{
    // What ships has some thousands. A procedure with a million situations is no instruction that anybody can judge.
    public const int MostStates = 1_000_000;

    private readonly Procedure _procedure;
    private readonly View _view;
    private readonly Graph _graph;
    private readonly Dictionary<Spot, int> _known = [];
    private readonly List<(Spot Spot, int From, string Answer, bool Assumed)> _states = [];
    private readonly Ways _ways = new();
    private List<string> _begun = [];
    private readonly HashSet<int> _reached = [];
    private readonly HashSet<int> _passed = [];
    private readonly HashSet<int> _passedAt = [];
    private readonly HashSet<int> _ended = [];
    private readonly Dictionary<(SafetyRule, int, string), Finding> _findings = [];

    private Explorer(Procedure procedure, View view) => (_procedure, _view, _graph) = (procedure, view, new(procedure, view));

    public Graph Graph => _graph;

    public IEnumerable<Finding> Findings => _findings.Values;

    /// <summary>The steps, by their places, at which something was found.</summary>
    public IEnumerable<int> Troubled => _findings.Keys.Select(f => f.Item2);

    public IReadOnlyList<string> Beginnings => _begun;

    public int States => _states.Count;

    public bool Reached(int node) => _reached.Contains(node);

    /// <summary>Whether the walk decides a step's condition, rather than letting it be done or not.</summary>
    public bool Decides(int node) => _view.Decided.Contains(node);

    /// <summary>Whether the walk comes by a step, done or not.</summary>
    public bool ComesBy(int node) => _states.Exists(s => s.Spot.Node == node);

    public bool Passed(int gate) => _passed.Contains(gate);

    public int NodeOf(int state) => _states[state].Spot.Node;

    /// <summary>The nearest state from which no end can be reached; -1 where there is none.</summary>
    public int Lost() => _ways.FirstLost(_states.Count, _ended);

    /// <summary>The gates that can be come to from a state and that never open from there, by their places.</summary>
    public IEnumerable<int> ShutFrom(int state)
    {
        var ahead = _ways.From(state);
        var open = ahead.Where(_passedAt.Contains).Select(NodeOf).ToHashSet();
        return ahead.Select(NodeOf).Distinct().Where(n => _graph.Nodes[n].Step.Step.Gate is not null && !open.Contains(n)).Order();
    }

    public static Explorer Walked(Procedure procedure, View view)
    {
        var explorer = new Explorer(procedure, view);
        explorer.Walk();
        return explorer;
    }

    private void Walk()
    {
        _begun = [.. Begin(new string('\0', _graph.Variables.Count))];
        foreach (var values in _begun)
            Arrive(0, Begun(), values, -1, -1, "");
        for (var at = 0; at < _states.Count && _states.Count <= MostStates; at++)
            Leave(at, _graph.Nodes[_states[at].Spot.Node], _states[at].Spot);
    }

    /// <summary>A recovery may begin with a drive in the engineer's hand.</summary>
    private Situation Begun() =>
        new(
            _view.Facts && _procedure.ComesBack == ComesBack.Unchanged && _procedure.Steps[0].Step.Against == ScanTarget.DriveOut
                ? Known.DriveOut
                : Known.Nothing
        );

    /// <summary>Everything that the procedure is written for, as far as its own condition tells it apart.</summary>
    private IEnumerable<string> Begin(string values)
    {
        for (var v = 0; v < _graph.Variables.Count; v++)
            if (_graph.Variables.IsAnswer(v))
                values = Variables.With(values, v, _graph.Variables.PlaceOf(v, AnswerFacts.Unanswered));
        return Split(values, _procedure.AppliesTo);
    }

    private IEnumerable<string> Split(string values, Condition condition) =>
        condition.Holds(_graph.Variables.In(values)) is { } decided
            ? decided
                ? [values]
                : []
            : condition.Facts().Select(_graph.Variables.IndexOf).First(v => values[v] == '\0') is var open
                ? Enumerable
                    .Range(0, _graph.Variables.Values(open).Count)
                    .SelectMany(value => Split(Variables.With(values, open, value), condition))
                : [];

    private void Leave(int at, Node node, Spot spot)
    {
        foreach (var open in node.Asks)
            if (spot.Values[open] == '\0')
            {
                for (var value = 0; value < _graph.Variables.Values(open).Count; value++)
                    Arrive(
                        spot.Node,
                        spot.Now,
                        Variables.With(spot.Values, open, value),
                        spot.LeftFor,
                        at,
                        $"{_graph.Variables.Name(open)} is {_graph.Variables.Told(open, value)}",
                        assumed: true
                    );
                return;
            }
        var done = node.When.Holds(spot.Values);
        if (done != true)
            Follow(at, spot, Lead.GoOn, spot.Now, spot.Values, "");
        if (done == false)
            return;
        if (done == true)
            _reached.Add(spot.Node);
        foreach (var (rule, sentence) in Broken(node, spot))
            Find(rule, spot.Node, sentence, at, RunStep.Done);
        foreach (var (answer, to) in node.Leads)
            Answer(at, node, spot, answer, to);
    }

    private IEnumerable<(SafetyRule Rule, string Sentence)> Broken(Node node, Spot spot) =>
        PathRules
            .OfThings(node, spot.Now)
            .Concat(InTheWay(node, spot))
            .Concat(
                _view.Facts
                    ? PathRules.At(node, spot.Now, _graph.Variables.In(spot.Values)(ModelProperties.Swapped), _procedure.ComesBack)
                    : []
            );

    /// <summary>Judged where the thing is followed; where the procedure knows of none, on the main walk.</summary>
    private IEnumerable<(SafetyRule Rule, string Sentence)> InTheWay(Node node, Spot spot)
    {
        if (node.Step.Step.Records is not (Records.DrawnOut or Records.Unseated or Records.Withdrawn))
            yield break;
        if (Things.InTheWay(_graph.Variables.In(spot.Values)(ModelProperties.Loads)) is not { } thing)
            yield break;
        var bit = _graph.Things.Bit(thing);
        if ((bit == 0 ? _view.Facts : (_view.Things & bit) != 0) && (spot.Now.Open & bit) == 0)
            yield return (
                SafetyRule.Order,
                $"'{node.Step.Id}' pulls a drive while {thing} is closed; somebody has to open it first ('opens: {thing}')."
            );
    }

    private void Answer(int at, Node node, Spot spot, string answer, int to)
    {
        if (!_view.Facts)
        {
            Answered(at, node, spot, new(Known.Nothing, Effects.Of(node, answer, spot.Now).Open), answer, to);
            return;
        }
        if (answer == RunStep.Done && node.Step.Step.Kind == StepKind.Gate)
        {
            if (
                !Effects.CanPass(
                    node,
                    spot.Now,
                    _procedure.ComesBack == ComesBack.ByRebuild ? _graph.Variables.In(spot.Values)(ModelProperties.RebuildStarts) : null
                )
            )
                return;
            _passed.Add(spot.Node);
            _passedAt.Add(at);
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
                Follow(
                    at,
                    spot,
                    to,
                    now,
                    Variables.With(spot.Values, node.Writes, value),
                    $"{_graph.Variables.Values(node.Writes)[value]}"
                );
        else
            Follow(at, spot, to, now, Variables.With(spot.Values, node.Writes, _graph.Variables.PlaceOf(node.Writes, answer)), answer);
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
        var swapping = _view.Facts && _graph.Swapping.Contains(_graph.Nodes[spot.Node].Step.Loop ?? -1);
        if (swapping && PathRules.AtNextDrive(_procedure.ComesBack, now) is { } broken)
            Find(SafetyRule.ProvenDone, spot.Node, broken, at, answer);
        if (_graph.SeveralDrives)
            Step(
                at,
                spot,
                _graph.LoopStart(spot.Node),
                swapping ? now.ForNextDrive() : now,
                Forgotten(values, spot.Node),
                answer.Length == 0 ? "another drive" : $"{answer}, another drive"
            );
        Step(at, spot, _graph.LoopEnd(spot.Node) + 1, now, values, answer.Length == 0 ? "no other drive" : answer);
    }

    /// <summary>Nothing of this drive's loop has been answered yet for the next one.</summary>
    private string Forgotten(string values, int node)
    {
        foreach (var answer in _graph.AnswersInLoopOf(node))
            values = Variables.With(values, answer, _graph.Variables.PlaceOf(answer, AnswerFacts.Unanswered));
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
        if (to > spot.Node && _graph.Nodes[to].When.Holds(values) == false)
        {
            Follow(at, spot with { Node = to }, Lead.GoOn, now, values, answer); // passed by, so there is no state to add
            return;
        }
        var calls = _graph.Nodes[to].Step.Step.Kind == StepKind.Call;
        var fromCall = _graph.Nodes[spot.Node].Step.Step.Kind == StepKind.Call;
        Arrive(
            to,
            now,
            values,
            calls
                ? fromCall
                    ? spot.LeftFor
                    : spot.Node
                : -1,
            at,
            answer
        );
    }

    private void Arrive(int node, Situation now, string values, int leftFor, int from, string answer, bool assumed = false)
    {
        var spot = new Spot(node, now, Lasting(values, _graph.Alive[node], leftFor), leftFor);
        if (!_known.TryGetValue(spot, out var at))
        {
            _known[spot] = at = _states.Count;
            _states.Add((spot, from, answer, assumed));
        }
        if (from >= 0)
            _ways.Add(from, at);
    }

    /// <summary>Only what is asked from here on keeps two states apart.</summary>
    private string Lasting(string values, bool[] alive, int leftFor)
    {
        var back = leftFor >= 0 ? _graph.Alive[leftFor] : alive;
        for (var i = 0; i < values.Length; i++)
            if (values[i] != '\0' && !alive[i] && !back[i])
                return string.Create(
                    values.Length,
                    (values, alive, back),
                    static (span, s) =>
                    {
                        for (var k = 0; k < span.Length; k++)
                            span[k] = s.alive[k] || s.back[k] ? s.values[k] : '\0';
                    }
                );
        return values;
    }

    private void End(int at, int node, bool handedOver, Situation now, string answer)
    {
        _ended.Add(at);
        foreach (
            var (rule, sentence) in PathRules
                .LeftOpen(handedOver, _graph.Things.Told(now.Open))
                .Concat(_view.Facts ? PathRules.AtEnd(_procedure.ComesBack, handedOver, now) : [])
        )
            Find(rule, node, sentence, at, answer);
    }

    private void Find(SafetyRule rule, int node, string sentence, int at, string answer)
    {
        var step = _graph.Nodes[node].Step;
        _findings.TryAdd(
            (rule, node, sentence),
            new(
                rule,
                step.Id,
                step.At,
                sentence,
                [.. PathTo(at), new(step.Id, step.Step.Say, answer.Length == 0 ? "(not done here)" : answer)]
            )
        );
    }

    /// <summary>The answers that led to a state, oldest first.</summary>
    public List<PathStep> PathTo(int at)
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
}
