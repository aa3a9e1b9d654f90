using Nailcrow.Service.Host;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Tickets.Lists;
using Quartz;

namespace Nailcrow.Service.Rebuilds;

/// <summary>One round over all rebuilds that are being followed.</summary>
[DisallowConcurrentExecution]
internal sealed class WatchRound(TicketLines lines, RebuildFollower follower, ILeases leases, ILogger<WatchRound> log) : IJob
{
    // Machines answer slowly and independently; sixteen at a time keep a thousand rebuilds within a minute.
    private const int AtOnce = 16;

    public async ValueTask Execute(IJobExecutionContext context, CancellationToken ct = default) =>
        await leases.DoAsync(SharedWork.FollowingRebuilds, FollowAllAsync, ct);

    private async Task FollowAllAsync(Lease lease, CancellationToken ct)
    {
        var watched = await lines.WatchedAsync(ct);
        await Parallel.ForEachAsync(
            watched,
            new ParallelOptions { MaxDegreeOfParallelism = AtOnce, CancellationToken = ct },
            async (ticket, token) =>
            {
                try
                {
                    await follower.FollowAsync(ticket, lease, token);
                }
                catch (Exception e) when (e is not OperationCanceledException)
                {
                    log.LogError(e, "Following the rebuild of ticket {Ticket} failed; the next round tries again", ticket);
                }
            }
        );
    }
}
