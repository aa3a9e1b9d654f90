namespace Nailcrow.Core.Tickets.Journal.Sealing;

/// <summary>A seal in the making: goes on from the whole blocks of the one before, and reads only what came since.</summary>
/// <param name="before">The seal before; null for the first.</param>
/// <param name="blockPosition">The position at which its last whole block ended.</param>
public sealed class SealDraft(Seal? before, long blockPosition)
{
    private readonly List<string> _blocks = [.. before?.Blocks ?? []];
    private readonly Frontier _block = new();
    private readonly SortedDictionary<long, (long Seq, string Hash)> _tickets = [];
    private readonly long _sealedBefore = before?.Entries ?? 0;

    public long Entries { get; private set; } = (before?.Blocks.Count ?? 0) * (long)Seal.BlockEntries;

    /// <summary>The position of the last entry.</summary>
    public long Position { get; private set; } = blockPosition;

    public long BlockPosition { get; private set; } = blockPosition;

    public void Add(long position, long ticket, long seq, string hash)
    {
        (Entries, Position) = (Entries + 1, position);
        if (Entries > _sealedBefore)
            _tickets[ticket] = (seq, hash);
        _block.Add(MerkleTree.Leaf(hash));
        if (_block.Count < Seal.BlockEntries)
            return;
        _blocks.Add(Convert.ToHexStringLower(_block.Root()));
        _block.Clear();
        BlockPosition = position;
    }

    public Seal Finish(long number, DateTimeOffset at, string hashBefore, SealedLedger ledger, SealedLog security)
    {
        var whole = new Frontier();
        foreach (var block in _blocks)
            whole.AddSubtree(Convert.FromHexString(block), Seal.BlockEntries);
        _block.AppendTo(whole);
        return new(
            number,
            at,
            Entries,
            Convert.ToHexStringLower(whole.Root()),
            hashBefore,
            _blocks,
            [.. _tickets.Select(t => new SealedTicket(t.Key, t.Value.Seq, t.Value.Hash))],
            ledger,
            security
        );
    }
}
