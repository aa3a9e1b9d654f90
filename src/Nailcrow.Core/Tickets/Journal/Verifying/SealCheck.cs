using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Core.Tickets.Journal.Sealing;

namespace Nailcrow.Core.Tickets.Journal.Verifying;

/// <summary>Holds what is there now against what was sealed then, over entries in order of arrival.</summary>
public sealed class SealCheck(Seal seal)
{
    private readonly Frontier _whole = new();
    private readonly Frontier _block = new();
    private readonly List<(long Ticket, long Seq)> _inBlock = [];
    private readonly Dictionary<long, SealedTicket> _sealed = seal.Tickets.ToDictionary(t => t.Ticket);
    private readonly HashSet<long> _found = [];
    private long _entries;
    private long _blocksDiffering;

    public void Next(StoredEntry entry, Action<Trouble> tell)
    {
        if (_entries >= seal.Entries)
            return;
        _entries++;
        var leaf = MerkleTree.Leaf(entry.Hash);
        _whole.Add(leaf);
        _block.Add(leaf);
        _inBlock.Add((entry.Ticket, entry.Seq));
        if (_sealed.TryGetValue(entry.Ticket, out var then) && then.Entries == entry.Seq)
        {
            _found.Add(entry.Ticket);
            if (then.Hash != entry.Hash)
                tell(
                    new(
                        TroubleKind.NotAsSealed,
                        entry.Ticket,
                        entry.Seq,
                        $"{TicketNumber.Text(entry.Ticket)} is not what was sealed: entry {entry.Seq}, or one before it, was written anew since."
                    )
                );
        }
        if (_block.Count == Seal.BlockEntries)
            EndBlock(tell);
    }

    public void Finish(Action<Trouble> tell)
    {
        if (_entries < seal.Entries)
            tell(new(TroubleKind.Missing, null, null, $"The seal covers {seal.Entries} entries; {_entries} are there."));
        foreach (var ticket in seal.Tickets.Where(t => !_found.Contains(t.Ticket)))
            tell(
                new(
                    TroubleKind.NotAsSealed,
                    ticket.Ticket,
                    ticket.Entries,
                    $"{TicketNumber.Text(ticket.Ticket)} had {ticket.Entries} entries when it was sealed, and the last of them is not among those that were."
                )
            );
        if (_blocksDiffering > 1)
            tell(
                new(
                    TroubleKind.NotAsSealed,
                    null,
                    null,
                    $"{_blocksDiffering} blocks of {Seal.BlockEntries} entries are not as they were sealed; the first is named above."
                )
            );
        if (_entries == seal.Entries && Convert.ToHexStringLower(_whole.Root()) != seal.Root)
            tell(
                new(
                    TroubleKind.NotAsSealed,
                    null,
                    null,
                    $"What is there now is not what was sealed on {seal.SealedAt.UtcDateTime:yyyy-MM-dd HH:mm} UTC: its "
                        + "root is "
                        + $"another{(_blocksDiffering == 0 ? $", and the difference is after entry {_entries - _block.Count} in order of arrival" : "")}."
                )
            );
    }

    private void EndBlock(Action<Trouble> tell)
    {
        var number = (int)(_entries / Seal.BlockEntries) - 1;
        if (number < seal.Blocks.Count && Convert.ToHexStringLower(_block.Root()) != seal.Blocks[number] && ++_blocksDiffering == 1)
            tell(
                new(
                    TroubleKind.NotAsSealed,
                    null,
                    null,
                    $"Entries {_entries - _block.Count + 1} to {_entries} in order of arrival are not those that were sealed; they are of {Tickets()}."
                )
            );
        _block.Clear();
        _inBlock.Clear();
    }

    private string Tickets() => string.Join(", ", _inBlock.Select(e => e.Ticket).Distinct().Order().Select(TicketNumber.Text));
}
