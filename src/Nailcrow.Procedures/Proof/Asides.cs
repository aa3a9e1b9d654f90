using Nailcrow.Core.Procedures;

namespace Nailcrow.Procedures.Proof;

/// <summary>
/// The steps that lead nowhere else and change nothing but that something is open or closed, and that depend on the machine
/// and the ticket alone. Each kind of them is followed on a walk of its own, so that a bezel, a cover and a drawer add up.
/// </summary>
internal sealed class Asides
{
    private readonly Graph _graph;
    private readonly HashSet<int> _steps;

    public Asides(Graph graph)
    {
        _graph = graph;
        _steps = [.. Enumerable.Range(0, graph.Nodes.Count).Where(IsIdle)];
        // A thing is set aside with all of its steps or not at all.
        foreach (var thing in Things())
            if (StepsOf(thing).Any(i => !_steps.Contains(i)))
                _steps.RemoveWhere(StepsOf(thing).Contains);
    }

    public bool Contains(int node) => _steps.Contains(node);

    /// <summary>The walk that is left once all these are set aside.</summary>
    public View Main =>
        new(
            Enumerable.Range(0, _graph.Nodes.Count).Except(_steps).ToHashSet(),
            ~Things().Aggregate(0UL, (all, thing) => all | thing),
            true
        );

    /// <summary>One walk for each thing, and one for the steps that ask for the same facts.</summary>
    public IEnumerable<View> Walks() =>
        Things()
            .Select(thing => new View(StepsOf(thing).ToHashSet(), thing, false))
            .Concat(
                _steps
                    .Where(i => ThingOf(i) == 0)
                    .GroupBy(i => string.Join(' ', _graph.Nodes[i].Step.When.Facts().Distinct().Order(StringComparer.Ordinal)))
                    .Select(alike => new View(alike.ToHashSet(), 0, false))
            );

    /// <summary>Followed on the main walk after all: what was found there may depend on it.</summary>
    public void TakeBack(int node) => _steps.ExceptWith(ThingOf(node) is var thing and not 0 ? StepsOf(thing) : [node]);

    private List<ulong> Things() => [.. _steps.Select(ThingOf).Where(t => t != 0).Distinct()];

    private List<int> StepsOf(ulong thing) => [.. Enumerable.Range(0, _graph.Nodes.Count).Where(i => (ThingOf(i) & thing) != 0)];

    private ulong ThingOf(int node) => _graph.Nodes[node].Opens | _graph.Nodes[node].Closes;

    private bool IsIdle(int index)
    {
        var node = _graph.Nodes[index];
        var depends = node.Step.When.Facts().ToList();
        return node.Step.Step is { Kind: StepKind.Do or StepKind.Limit, Records: null or Records.Release }
            && ((node.Opens | node.Closes) & (node.LightBit | node.PowerBit)) == 0
            && System.Numerics.BitOperations.PopCount(ThingOf(index)) <= 1
            && node.Writes < 0
            && depends.TrueForAll(f => !f.StartsWith(AnswerFacts.Prefix, StringComparison.Ordinal))
            && (depends.Count > 0 || ThingOf(index) != 0)
            && (!Proof.Things.IsInTheWay(node.Thing) || depends.Concat(_graph.WrittenFor).Contains(ModelProperties.Loads))
            && node.Leads.All(l => l.To == Lead.GoOn || (l.To >= 0 && _graph.Nodes[l.To].OnlyComesBack));
    }
}
