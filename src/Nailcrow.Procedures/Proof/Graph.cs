using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Procedures.Language;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Procedures.Proof;

/// <summary>A procedure as steps and the ways between them, with what each step may still need to know.</summary>
internal sealed class Graph
{
    private readonly Procedure _procedure;
    private readonly View _view;
    private readonly List<(int First, int Last)> _loops;
    private readonly ILookup<int?, int> _ofLoop;

    public Graph(Procedure procedure, View view)
    {
        _procedure = procedure;
        _view = view;
        Variables = new(procedure, [.. procedure.Steps.Where((_, i) => view.Decided.Contains(i))]);
        Things = new(procedure.Steps);
        var marks = procedure.Steps.Select(SourceOf).OfType<string>().Distinct().ToList();
        Nodes = [.. procedure.Steps.Select((s, i) => NodeOf(i, s, marks))];
        var places = procedure.Steps.Select((s, i) => (s.Loop, i)).ToLookup(s => s.Loop ?? -1, s => s.i);
        _loops = [.. procedure.Steps.Select(s => (places[s.Loop ?? -1].First(), places[s.Loop ?? -1].Last()))];
        BayMarks = procedure.Steps.Where(s => s.Step.Records == Records.BayMark).Select(SourceOf).Distinct().Count();
        Swapping = procedure.Steps.Where(s => s.Step.Records == Records.DrawnOut).Select(s => s.Loop).OfType<int>().ToHashSet();
        SeveralDrives = procedure.AppliesTo.Holds(fact => fact == TicketFacts.DrivesFact ? "2" : null) != false;
        Alive = LivenessOf();
        _ofLoop = Enumerable
            .Range(0, Nodes.Count)
            .Where(i => Nodes[i] is { Writes: >= 0, Step.Loop: not null })
            .ToLookup(i => Nodes[i].Step.Loop, i => Nodes[i].Writes);
    }

    /// <summary>False where it is written for tickets of one drive: then no loop goes round.</summary>
    public bool SeveralDrives { get; }

    /// <summary>The facts of what the procedure is written for.</summary>
    public IEnumerable<string> WrittenFor => _procedure.AppliesTo.Facts();

    public Variables Variables { get; }
    public Things Things { get; }
    public IReadOnlyList<Node> Nodes { get; }

    /// <summary>How many different marks there are to tell the bay by.</summary>
    public int BayMarks { get; }

    /// <summary>Loops in which drives are swapped: there, the next drive begins anew.</summary>
    public IReadOnlySet<int> Swapping { get; }

    /// <summary>For each step, the variables that something from it on may ask; what nobody asks any more makes no two states different.</summary>
    public IReadOnlyList<bool[]> Alive { get; }

    /// <summary>The answers that are given in the loop a step stands in.</summary>
    public IEnumerable<int> AnswersInLoopOf(int node) => _ofLoop[Nodes[node].Step.Loop];

    public int LoopStart(int node) => _loops[node].First;

    public int LoopEnd(int node) => _loops[node].Last;

    private Node NodeOf(int index, ProcedureStep step, List<string> marks)
    {
        var light = Things.Bit(Things.Light);
        return new(
            step,
            // Of a step that is not decided nothing is known: its facts may stand here for others that differ only to it.
            _view.Decided.Contains(index)
            || step.When == Condition.Always
                ? Asked.Of(step.When, Variables)
                : Asked.Open,
            [.. AllAnswers.Of(step).Select(a => (a.Answer, ToOf(a.Next)))],
            _view.Decided.Contains(index)
                ? [.. step.When.Facts().Concat(Variables.Implied(step, _procedure.ComesBack)).Distinct().Select(Variables.IndexOf)]
                : WayIn(step),
            Variables.IndexOf(AnswerFacts.Prefix + step.Id),
            (Things.Bit(step.Step.Opens) | (step.Step.Records == Records.LightOn ? light : 0)) & _view.Things,
            (Things.Bit(step.Step.Closes) | (step.Step.Records == Records.LightOff ? light : 0)) & _view.Things,
            light,
            Things.Bit(Things.Power),
            SourceOf(step) is { } source ? 1u << (marks.IndexOf(source) & 31) : 0
        );
    }

    /// <summary>Where only what is in the way of a pull is followed, the pull asks how the machine is loaded.</summary>
    private int[] WayIn(ProcedureStep step) =>
        step.Step.Records == Records.DrawnOut && !_view.Facts && Variables.IndexOf(ModelProperties.Loads) is var loads and >= 0
            ? [loads]
            : [];

    /// <summary>Two marks of one source are one.</summary>
    private static string? SourceOf(ProcedureStep step) =>
        step.Step is { Records: { } records, Mark: { } mark } ? Marks.SourceOf(records, mark) : null;

    private int ToOf(string? target) =>
        target switch
        {
            null or Targets.End => Lead.End,
            Targets.GoOn => Lead.GoOn,
            Targets.NextDrive => Lead.NextDrive,
            StepAnswer.Back => Lead.Back,
            StepAnswer.HandOver => Lead.HandOver,
            _ => _procedure.IndexOf(target),
        };

    /// <summary>Backward over the ways until nothing changes (live variables: Aho, Lam, Sethi, Ullman, Compilers, 9.2.5).</summary>
    private List<bool[]> LivenessOf()
    {
        var alive = Nodes.Select(n => new bool[Variables.Count]).ToList();
        var after = Enumerable.Range(0, Nodes.Count).Select(i => Followers(i).Distinct().ToArray()).ToList();
        for (var changed = true; changed; )
        {
            changed = false;
            for (var i = Nodes.Count - 1; i >= 0; i--)
                changed |= Spread(Nodes[i], alive[i], after[i], alive);
        }
        return alive;
    }

    private static bool Spread(Node node, bool[] here, int[] after, List<bool[]> alive)
    {
        // A step whose condition may not hold leaves its own answer as it was.
        var written = node.Step.When == Condition.Always ? node.Writes : -1;
        var changed = false;
        foreach (var asked in node.Asks)
            changed |= !here[asked] && (here[asked] = true);
        foreach (var to in after)
            for (var v = 0; v < here.Length; v++)
                changed |= alive[to][v] && v != written && !here[v] && (here[v] = true);
        return changed;
    }

    /// <summary>Every step that may follow, taking the way back from a call as leading to all that call.</summary>
    private IEnumerable<int> Followers(int node)
    {
        foreach (var to in Nodes[node].Leads.Select(l => l.To).Append(Lead.GoOn))
        foreach (
            var next in to switch
            {
                >= 0 => [to],
                Lead.GoOn or Lead.NextDrive => Onward(node),
                Lead.Back => Enumerable
                    .Range(0, Nodes.Count)
                    .Where(i => Nodes[i].Leads.Any(l => l.To >= 0 && Nodes[l.To].Step.Step.Kind == StepKind.Call)),
                _ => [],
            }
        )
            yield return next;
    }

    private IEnumerable<int> Onward(int node)
    {
        if (Nodes[node].Step.Loop is not null)
        {
            if (SeveralDrives)
                yield return LoopStart(node);
            if (LoopEnd(node) + 1 < Nodes.Count)
                yield return LoopEnd(node) + 1;
        }
        if (node + 1 < Nodes.Count)
            yield return node + 1;
    }
}
