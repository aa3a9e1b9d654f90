namespace Nailcrow.Store.Tickets;

/// <summary>Wakes whoever waits for something new. It carries no content: listeners read what was kept, so none is missed.</summary>
public sealed class JournalNews
{
    private TaskCompletionSource _next = Fresh();
    private TaskCompletionSource _errand = Fresh();
    private TaskCompletionSource _alert = Fresh();
    private long _rings;

    /// <summary>How often something was written; what was read at one count stands until there is another.</summary>
    public long Rings => Interlocked.Read(ref _rings);

    /// <summary>Completes when something is written after this call.</summary>
    public Task Next => Volatile.Read(ref _next).Task;

    /// <summary>Completes when something that has to leave Nailcrow is written after this call.</summary>
    public Task NextErrand => Volatile.Read(ref _errand).Task;

    /// <summary>Completes when something that a ticket may have to hear of comes in after this call.</summary>
    public Task NextAlert => Volatile.Read(ref _alert).Task;

    /// <summary>Something came in that a ticket may have to hear of.</summary>
    public void RingAlerts() => Complete(ref _alert);

    internal void Ring(bool errands = false)
    {
        if (errands)
            Complete(ref _errand);
        Interlocked.Increment(ref _rings);
        Complete(ref _next);
    }

    private static void Complete(ref TaskCompletionSource waited) => Interlocked.Exchange(ref waited, Fresh()).SetResult();

    private static TaskCompletionSource Fresh() => new(TaskCreationOptions.RunContinuationsAsynchronously);
}
