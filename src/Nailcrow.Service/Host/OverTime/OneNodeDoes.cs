using Nailcrow.Store.Nodes;

namespace Nailcrow.Service.Host.OverTime;

/// <summary>Rounds of work that one node does for all of them.</summary>
internal static class OneNodeDoes
{
    /// <summary>Does a round where the work is this node's, and stops in the middle of it where another takes the work over.</summary>
    public static async Task DoAsync(this ILeases leases, SharedWork work, Func<Lease, CancellationToken, Task> round, CancellationToken ct)
    {
        if (leases.Of(work) is not { } lease)
            return;
        using var mine = CancellationTokenSource.CreateLinkedTokenSource(ct, lease.Over);
        try
        {
            await round(lease, mine.Token);
        }
        catch (OperationCanceledException e)
            when (!ct.IsCancellationRequested && (e is LeaseLostException || lease.Over.IsCancellationRequested))
        {
            // The other node goes on with what was left.
        }
    }
}
