using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.Returns.Ledger;

namespace Nailcrow.Store.Returns.Supplies;

/// <summary>Holds what the ledger says of supplies against itself, against the tickets, and the list of counts against it.</summary>
internal static class SupplyCheck
{
    /// <summary>Every supply's lines, one supply after the other.</summary>
    public static async IAsyncEnumerable<(string Key, List<SupplyMove> Moves)> LinesAsync(
        NailcrowDb db,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        // One at a time: what is used every day has a long line.
        await foreach (var (key, texts) in WholeLines.OfAsync(db, SupplyName.KeyBegins, SupplyName.KeyEnds, 1, ct))
            if (texts.Select(SupplyText.Read).OfType<SupplyMove>().ToList() is { Count: > 0 } moves)
                yield return (key, moves);
    }

    /// <summary>
    /// What a supply was called first. One whose only use was taken back has a line, and stands on no list; null where it has no line.
    /// </summary>
    public static async Task<string?> CalledAsync(NailcrowDb db, string key, CancellationToken ct) =>
        await db.Ledger.AsNoTracking().Where(r => r.Serial == key).OrderBy(r => r.Seq).Select(r => r.Text).FirstOrDefaultAsync(ct)
            is { } text
            ? SupplyText.Read(text)?.Supply
            : null;

    /// <summary>The list of counts says what the ledger says.</summary>
    public static async Task CountsAsync(NailcrowDb db, Action<Trouble> tell, CancellationToken ct)
    {
        var listed = await db.Supplies.AsNoTracking().ToDictionaryAsync(r => r.Id, r => (r.Name, r.Count), ct);
        await foreach (var (key, moves) in LinesAsync(db, ct))
        {
            var told = SupplyLine
                .Of(moves)
                .Counts.Select(c => SupplyRow.Of(key, moves[0].Supply, c.Key, c.Value))
                .ToDictionary(r => r.Id, r => (r.Name, r.Count));
            if (told.Any(t => listed.GetValueOrDefault(t.Key) != t.Value) || listed.Count(l => IsOf(l.Key, key)) != told.Count)
                tell(
                    new(
                        TroubleKind.ListsDiffer,
                        null,
                        null,
                        $"{moves[0].Supply}: the ledger counts otherwise than the list of supplies; 'nailcrow admin rebuild-projections' tells it anew."
                    )
                );
            foreach (var id in listed.Keys.Where(id => IsOf(id, key)).ToList())
                listed.Remove(id);
        }
        foreach (var name in listed.Values.Select(l => l.Name).Distinct())
            tell(new(TroubleKind.Unexplained, null, null, $"{name} is on the list of supplies, and no line of the ledger tells of it."));
    }

    /// <summary>Every use that a ticket tells of is in the ledger, and nothing else is there in its name.</summary>
    public static void AgainstTicket(Ticket ticket, IEnumerable<LedgerRow> rows, Action<Trouble> tell)
    {
        var there = SupplyLine.So(rows.Select(r => SupplyText.Read(r.Text)).OfType<SupplyMove>()).Select(m => m.Id).ToHashSet();
        if (!there.SetEquals(SuppliesOf.Said(ticket).Select(m => m.Id)))
            tell(
                new(
                    TroubleKind.ListsDiffer,
                    ticket.Number,
                    null,
                    $"{TicketNumber.Text(ticket.Number)}: the ledger has other supplies as used on it than its journal."
                )
            );
    }

    private static bool IsOf(string id, string key) => id.StartsWith($"{key}\n", StringComparison.Ordinal);
}
