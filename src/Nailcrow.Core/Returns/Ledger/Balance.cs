using Nailcrow.Core.Returns.Supplies;

namespace Nailcrow.Core.Returns.Ledger;

/// <summary>How many parts one kind of holder has.</summary>
/// <param name="In">How often a part came to one of them.</param>
/// <param name="Out">How often a part left one of them.</param>
public sealed record HolderBalance(HolderKind Kind, long Parts, long In, long Out);

/// <summary>Something of a part that is open: who has it who may not keep it, or what contradicts.</summary>
public sealed record OpenPart(string Serial, string Says, DateTimeOffset Since, long? Ticket);

/// <summary>All parts that ever were in the ledger, and where each is: in = out over everything.</summary>
/// <param name="Parts">Parts that came into the ledger.</param>
/// <param name="Difference">
/// Parts that came, less what all holders took in and gave out, and by how much any of them has more or fewer than that; anything but
/// 0 is a fault of ours.
/// </param>
/// <param name="OnTheWay">Parts with a holder who may not keep them.</param>
/// <param name="Contradictions">Parts of which two things are said that cannot both be so.</param>
/// <param name="Open">The oldest of both.</param>
/// <param name="Supplies">What has no serial, each counted for itself.</param>
public sealed record Balance(
    long Parts,
    long Difference,
    long OnTheWay,
    long Contradictions,
    IReadOnlyList<HolderBalance> Holders,
    IReadOnlyList<OpenPart> Open,
    IReadOnlyList<SupplyBalance> Supplies
);

/// <summary>Takes part after part, remembers counts and the oldest of what is open, and no part.</summary>
public sealed class Balancing(int mostTold = 50)
{
    private readonly Dictionary<HolderKind, (long Parts, long In, long Out)> _holders = [];
    private readonly PriorityQueue<OpenPart, long> _open = new();
    private long _parts,
        _onTheWay,
        _contradictions;

    public void Add(PartLine line)
    {
        Holder? held = null;
        foreach (var movement in line.Movements)
        {
            // Setting aside moves nothing; the fold says where a part is after each, and this counts the hand-overs for itself.
            if (movement.To is not { } to || (movement.Kind == MovementKind.Reserved && held?.Kind == to.Kind && held.Name == to.Name))
                continue;
            Move(held?.Kind, to.Kind);
            held = to;
        }
        if (held is null)
            return;
        _parts++;
        var (parts, into, outOf) = _holders[line.Holder?.Kind ?? held.Kind];
        _holders[line.Holder?.Kind ?? held.Kind] = (parts + 1, into, outOf);
        if (!held.MayKeep)
        {
            _onTheWay++;
            Remember(
                new(
                    line.Serial,
                    $"{held.Where()}{(line.Going is { } going ? $", on its way to {going.To}" : "")}",
                    Since(line),
                    line.Last?.Ticket
                )
            );
        }
        if (Contradiction(line) is { } says)
        {
            _contradictions++;
            Remember(new(line.Serial, says, Since(line), line.Last?.Ticket));
        }
    }

    public Balance Result(IReadOnlyList<SupplyBalance> supplies) =>
        new(
            _parts,
            _parts - _holders.Values.Sum(h => h.In - h.Out) + _holders.Values.Sum(h => Math.Abs(h.Parts - (h.In - h.Out))),
            _onTheWay,
            _contradictions,
            [.. _holders.OrderBy(h => h.Key).Select(h => new HolderBalance(h.Key, h.Value.Parts, h.Value.In, h.Value.Out))],
            [.. _open.UnorderedItems.Select(o => o.Element).OrderBy(o => o.Since).ThenBy(o => o.Serial, StringComparer.Ordinal)],
            supplies
        );

    /// <summary>What cannot both be so; null where nothing contradicts.</summary>
    public static string? Contradiction(PartLine line) =>
        line.ReservedFor.Count > 1 ? $"set aside for {string.Join(" and ", line.ReservedFor.Select(Tickets.TicketNumber.Text))} at once"
        : line.ReservedFor.Count > 0
        && line.Holder is { Kind: HolderKind.Destroyed or HolderKind.Lost or HolderKind.Maker or HolderKind.Bay } holder
            ? $"set aside for {Tickets.TicketNumber.Text(line.ReservedFor[0])}, and {holder.Where()}"
        : null;

    private static DateTimeOffset Since(PartLine line) => line.Last?.At ?? DateTimeOffset.UnixEpoch;

    private void Move(HolderKind? from, HolderKind to)
    {
        if (from is { } left)
        {
            var (parts, into, outOf) = _holders[left];
            _holders[left] = (parts, into, outOf + 1);
        }
        var (p, i, o) = _holders.GetValueOrDefault(to);
        _holders[to] = (p, i + 1, o);
    }

    /// <summary>The oldest are kept: the newest of those kept goes when there are too many.</summary>
    private void Remember(OpenPart open)
    {
        _open.Enqueue(open, -open.Since.UtcTicks);
        if (_open.Count > mostTold)
            _open.Dequeue();
    }
}
