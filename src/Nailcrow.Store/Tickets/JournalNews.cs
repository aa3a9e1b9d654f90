namespace Nailcrow.Store.Tickets;

/// <summary>Wakes whoever waits for new entries. It carries no content: listeners read from the journal, so none is missed.</summary>
public sealed class JournalNews
{
    private TaskCompletionSource _next = Fresh();
    private TaskCompletionSource _errand = Fresh();
    private long _rings;

    /// <summary>How often something was written; what was read at one count stands until there is another.</summary>
    public long Rings => Interlocked.Read(ref _rings);

    /// <summary>Completes when something is written after this call.</summary>
    public Task Next => Volatile.Read(ref _next).Task;

    /// <summary>Completes when something that has to leave Nailcrow is written after this call.</summary>
    public Task NextErrand => Volatile.Read(ref _errand).Task;

    internal void Ring(bool errands = false)
    {
        if (errands)
            Interlocked.Exchange(ref _errand, Fresh()).SetResult();
        Interlocked.Increment(ref _rings);
        Interlocked.Exchange(ref _next, Fresh()).SetResult();
    }

    private static TaskCompletionSource Fresh() => new(TaskCreationOptions.RunContinuationsAsynchronously);
}
