namespace Nailcrow.Procedures.Proof;

/// <summary>The ways that were walked from state to state, to be walked backwards.</summary>
internal sealed class Ways
{
    private readonly List<(int From, int To)> _all = [];

    public void Add(int from, int to) => _all.Add((from, to));

    /// <summary>The first of so many states from which none of the ends can be reached; -1 where there is none.</summary>
    public int FirstLost(int states, IEnumerable<int> ends)
    {
        var leads = new bool[states];
        var (begins, froms) = Into(states);
        var open = new Stack<int>(ends);
        while (open.TryPop(out var at))
            if (!leads[at])
            {
                leads[at] = true;
                for (var i = begins[at]; i < begins[at + 1]; i++)
                    open.Push(froms[i]);
            }
        return Array.IndexOf(leads, false);
    }

    /// <summary>A state and all that can be reached from it.</summary>
    public IReadOnlySet<int> From(int state)
    {
        var onward = _all.ToLookup(w => w.From, w => w.To);
        var (seen, open) = (new HashSet<int>(), new Stack<int>([state]));
        while (open.TryPop(out var at))
            if (seen.Add(at))
                foreach (var to in onward[at])
                    open.Push(to);
        return seen;
    }

    /// <summary>For each state those that lead into it: one array, sorted by where they lead, and where each one's part begins.</summary>
    private (int[] Begins, int[] Froms) Into(int states)
    {
        var begins = new int[states + 1];
        foreach (var (_, to) in _all)
            begins[to + 1]++;
        for (var i = 1; i < begins.Length; i++)
            begins[i] += begins[i - 1];
        var (next, froms) = (begins[..^1], new int[_all.Count]);
        foreach (var (from, to) in _all)
            froms[next[to]++] = from;
        return (begins, froms);
    }
}
