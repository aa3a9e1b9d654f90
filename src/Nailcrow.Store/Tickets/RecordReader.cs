using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Store.Tickets;

/// <summary>Reads a ticket's record, only what the cached one does not have yet.</summary>
internal sealed class RecordReader(NailcrowDb db, RecordCache cache)
{
    public async Task<TicketRecord> ReadAsync(long ticket, CancellationToken ct)
    {
        var known = cache.Find(ticket) ?? TicketRecord.Of(ticket, []);
        var rows = await db.Journal.AsNoTracking().Where(r => r.Ticket == ticket && r.Seq > known.Head).OrderBy(r => r.Seq).ToListAsync(ct);
        if (rows.Count == 0)
            return known;
        var record = known.Head == 0 ? TicketRecord.Of(ticket, rows.Select(r => r.ToEntry())) : rows.Aggregate(known, (k, r) => k.With(r.ToEntry()));
        cache.Keep(record);
        return record;
    }
}
