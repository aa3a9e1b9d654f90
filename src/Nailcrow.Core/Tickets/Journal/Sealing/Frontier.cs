namespace Nailcrow.Core.Tickets.Journal.Sealing;

/// <summary>A growing tree, held as the roots of the whole subtrees that its leaves make: never more of them than the count has bits.</summary>
public sealed class Frontier
{
    private readonly List<(byte[] Root, long Leaves)> _subtrees = [];

    public long Count { get; private set; }

    public void Add(byte[] leaf) => AddSubtree(leaf, 1);

    /// <summary>Adds the root of a whole subtree; its size is a power of two that divides the count so far.</summary>
    public void AddSubtree(byte[] root, long leaves)
    {
        Count += leaves;
        while (_subtrees is [.., var last] && last.Leaves == leaves)
        {
            _subtrees.RemoveAt(_subtrees.Count - 1);
            (root, leaves) = (MerkleTree.Node(last.Root, root), leaves * 2);
        }
        _subtrees.Add((root, leaves));
    }

    public byte[] Root()
    {
        if (_subtrees.Count == 0)
            return MerkleTree.Empty;
        var root = _subtrees[^1].Root;
        for (var i = _subtrees.Count - 2; i >= 0; i--)
            root = MerkleTree.Node(_subtrees[i].Root, root);
        return root;
    }

    /// <summary>Adds these subtrees to a tree that stands before them.</summary>
    public void AppendTo(Frontier whole)
    {
        foreach (var (root, leaves) in _subtrees)
            whole.AddSubtree(root, leaves);
    }

    public void Clear()
    {
        _subtrees.Clear();
        Count = 0;
    }
}
