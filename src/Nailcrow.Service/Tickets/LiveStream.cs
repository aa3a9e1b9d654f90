using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Nailcrow.Client.Tickets;
using Nailcrow.Service.Host.Seen;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Tickets;

/// <summary>The journal as it grows, read from the database so that nothing is missed between two looks.</summary>
internal static class LiveStream
{
    private const int AtOnce = 200;

    // Whoever listens calls the page live only while something is heard, and has to know within three seconds that nothing is.
    private static readonly TimeSpan SilentAtMost = TimeSpan.FromSeconds(1);

    public static async IAsyncEnumerable<SseItem<LiveEntry>> AfterAsync(
        LiveFeed feed,
        JournalNews news,
        long? after,
        CancellationToken stopping,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        Measures.Streams.Add(1);
        try
        {
            var last = after ?? await feed.LastPositionAsync(ct);
            yield return StillHere(last);
            while (!ct.IsCancellationRequested)
            {
                var next = news.Next; // asked for before reading, so that what is written meanwhile wakes us
                var items = await feed.AfterAsync(last, AtOnce, ct);
                foreach (var item in items)
                {
                    last = item.Position;
                    yield return new(new(item.Position, item.Ticket, item.Seq, item.Kind, item.By), "entry")
                    {
                        EventId = $"{item.Position}",
                    };
                }
                if (stopping.IsCancellationRequested)
                {
                    yield return Going(last);
                    yield break;
                }
                if (items.Count < AtOnce && !await RingsAsync(next, stopping, ct))
                    yield return StillHere(last);
            }
        }
        finally
        {
            Measures.Streams.Add(-1);
        }
    }

    /// <summary>True when something was written; false when it has been silent for long, or the service is going down.</summary>
    private static async Task<bool> RingsAsync(Task next, CancellationToken stopping, CancellationToken ct)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping, ct);
        var silence = Task.Delay(SilentAtMost, either.Token);
        var rang = await Task.WhenAny(next, silence) == next;
        await either.CancelAsync(); // a timer for each waiting listener would outlive its wait
        return rang;
    }

    /// <summary>The service goes down: whoever listens comes back by itself, and says where it was.</summary>
    private static SseItem<LiveEntry> Going(long last) =>
        new(new(last, 0, 0, "going", ""), "going") { EventId = $"{last}", ReconnectionInterval = TimeSpan.FromSeconds(2) };

    private static SseItem<LiveEntry> StillHere(long last) => new(new(last, 0, 0, "still-here", ""), "still-here") { EventId = $"{last}" };
}
