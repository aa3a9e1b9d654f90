using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Tickets;

/// <summary>
/// The newest entries, read from the database once per node and given to every listener: a thousand open consoles cost one
/// question when something is written, and none while nothing is.
/// </summary>
internal sealed class LiveFeed(TicketJournal journal, JournalNews news) : IDisposable
{
    // A storm of a minute; whoever was away for longer asks the database itself.
    private const int Remembered = 8_192;

    // Never a count of rings, so that the next look reads on.
    private const long NotAll = -1;

    private readonly SemaphoreSlim _reading = new(1);
    private Newest? _newest;

    /// <param name="From">Position before the first of them: everything after it is here.</param>
    /// <param name="Rings">How often something had been written when this was read.</param>
    private sealed record Newest(long From, IReadOnlyList<JournalItem> Items, long Rings)
    {
        public long Last => Items is [.., var last] ? last.Position : From;
    }

    public async ValueTask<long> LastPositionAsync(CancellationToken ct) => (await CurrentAsync(ct)).Last;

    /// <summary>What was written after a position, oldest first.</summary>
    public async ValueTask<IReadOnlyList<JournalItem>> AfterAsync(long position, int most, CancellationToken ct)
    {
        var newest = await CurrentAsync(ct);
        return position < newest.From
            ? await journal.AfterAsync(position, most, ct)
            : [.. newest.Items.Skip(FirstAfter(newest.Items, position)).Take(most)];
    }

    private async ValueTask<Newest> CurrentAsync(CancellationToken ct)
    {
        if (Volatile.Read(ref _newest) is { } known && known.Rings == news.Rings)
            return known;
        await _reading.WaitAsync(ct);
        try
        {
            var rings = news.Rings; // before reading: what is written meanwhile is read the next time
            var before = _newest;
            if (before?.Rings == rings)
                return before;
            var read = before is null ? new(await journal.LastPositionAsync(ct), [], rings) : await GoneOnAsync(before, rings, ct);
            Volatile.Write(ref _newest, read);
            return read;
        }
        finally
        {
            _reading.Release();
        }
    }

    private async Task<Newest> GoneOnAsync(Newest before, long rings, CancellationToken ct)
    {
        var more = await journal.AfterAsync(before.Last, Remembered, ct);
        var isAll = more.Count < Remembered; // else there is more still, and the next look reads on
        List<JournalItem> items = isAll ? [.. before.Items, .. more] : [.. more];
        var tooMany = items.Count - Remembered;
        return tooMany > 0
            ? new(items[tooMany - 1].Position, items[tooMany..], rings)
            : new(isAll ? before.From : before.Last, items, isAll ? rings : NotAll);
    }

    private static int FirstAfter(IReadOnlyList<JournalItem> items, long position)
    {
        var (low, high) = (0, items.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (items[middle].Position <= position)
                low = middle + 1;
            else
                high = middle;
        }
        return low;
    }

    public void Dispose() => _reading.Dispose();
}
