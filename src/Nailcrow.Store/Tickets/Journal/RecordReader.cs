using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>Reads a ticket's record, only what the cached one does not have yet.</summary>
internal sealed class RecordReader(NailcrowDb db, RecordCache cache)
{
    public async Task<TicketRecord> ReadAsync(long ticket, CancellationToken ct)
    {
        var begun = Measures.Now;
        var known = cache.Find(ticket) ?? TicketRecord.Of(ticket, []);
        var rows = await JournalRows.OfTicketAsync(db, ticket, known.Head, ct);
        if (rows.Count == 0)
            return known;
        var record =
            known.Head == 0
                ? TicketRecord.Of(ticket, rows.Select(EntryReader.Read))
                : rows.Aggregate(known, (k, r) => k.With(EntryReader.Read(r)));
        cache.Keep(record);
        Measures.Fold.Since(begun);
        return record;
    }
}
