using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>Recently used records. A cached one is used only while its head is still the journal's.</summary>
internal sealed class RecordCache
{
    // What is worked on has to fit: a record that is dropped between two entries is read whole for the second. 150,000 entries do,
    // and on a small machine an eighth of what it has.
    private static readonly long MostBytes = Math.Min(256L * 1024 * 1024, GC.GetGCMemoryInfo().TotalAvailableMemoryBytes / 8);

    private readonly ConcurrentDictionary<long, (TicketRecord Record, long Used)> _kept = new();
    private readonly ConditionalWeakTable<TicketRecord, TicketLineRow> _lines = [];
    private readonly Lock _one = new();
    private long _clock;
    private long _bytes;

    /// <summary>A record's line in the lists; asked again when its next entry comes.</summary>
    public TicketLineRow LineOf(TicketRecord record) => _lines.GetValue(record, Projecting.Line);

    public TicketRecord? Find(long ticket)
    {
        if (!_kept.TryGetValue(ticket, out var found))
            return null;
        _kept[ticket] = (found.Record, Interlocked.Increment(ref _clock));
        return found.Record;
    }

    public void Keep(TicketRecord record)
    {
        lock (_one)
        {
            _bytes += record.Bytes - (_kept.TryGetValue(record.Ticket.Number, out var before) ? before.Record.Bytes : 0);
            _kept[record.Ticket.Number] = (record, Interlocked.Increment(ref _clock));
            if (_bytes > MostBytes)
                DropOldest(except: record.Ticket.Number);
        }
    }

    public void Forget(long ticket)
    {
        lock (_one)
            if (_kept.TryRemove(ticket, out var gone))
                _bytes -= gone.Record.Bytes;
    }

    /// <summary>Down to nine tenths, so that not every record that comes drops another.</summary>
    private void DropOldest(long except)
    {
        foreach (var old in _kept.ToArray().Where(k => k.Key != except).OrderBy(k => k.Value.Used))
        {
            if (_bytes <= MostBytes * 9 / 10)
                return;
            if (_kept.TryRemove(old.Key, out var gone))
                _bytes -= gone.Record.Bytes;
        }
    }
}
