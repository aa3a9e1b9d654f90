using System.Collections.Concurrent;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Store.Tickets;

/// <summary>Recently used records. A cached one is used only while its head is still the journal's.</summary>
internal sealed class RecordCache
{
    // A record of a full ticket takes some 100 kB, so this many stay under 50 MB.
    private const int Most = 500;

    private readonly ConcurrentDictionary<long, (TicketRecord Record, long Used)> _kept = new();
    private long _clock;

    public TicketRecord? Find(long ticket)
    {
        if (!_kept.TryGetValue(ticket, out var found))
            return null;
        _kept[ticket] = (found.Record, Interlocked.Increment(ref _clock));
        return found.Record;
    }

    public void Keep(TicketRecord record)
    {
        _kept[record.Ticket.Number] = (record, Interlocked.Increment(ref _clock));
        if (_kept.Count > Most)
            DropOldest();
    }

    public void Forget(long ticket) => _kept.TryRemove(ticket, out _);

    private void DropOldest()
    {
        foreach (var old in _kept.ToArray().OrderBy(k => k.Value.Used).Take(Most / 10))
            _kept.TryRemove(old.Key, out _);
    }
}
