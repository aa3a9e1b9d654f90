using Nailcrow.Core.Swaps;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Appliances;

/// <summary>What earlier visits learnt of which bay is which, from the tickets of the machine.</summary>
internal sealed class BaySightings(TicketLines lines, TicketJournal journal)
{
    // A machine has a handful of tickets in its life; two hundred are more than any has had.
    private const int MostTickets = 200;

    public async Task<IReadOnlyList<BaySighting>> OfAsync(string asset, CancellationToken ct)
    {
        var seen = new List<BaySighting>();
        foreach (var line in await lines.FindAsync(new(Asset: asset, Limit: MostTickets), ct))
            if (await journal.ReadAsync(line.Number, ct) is { } record)
                seen.AddRange(BayMap.Learnt(record.Ticket));
        return seen;
    }
}
