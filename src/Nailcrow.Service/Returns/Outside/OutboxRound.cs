using System.Collections.Concurrent;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Returns.Outside;

/// <summary>
/// Says what is to be said outside, as soon as it is on record and again until it was heard. Each partner is asked by itself, one
/// thing after the other: one that hangs holds nobody else up.
/// </summary>
internal sealed class OutboxRound(
    Outbox outbox,
    Partners partners,
    PartnerCalls calls,
    ErrandRunner runner,
    ParcelNews parcels,
    JournalNews news,
    ILeases leases,
    OutsideSettings settings,
    TimeProvider time,
    IHostApplicationLifetime life,
    ILogger<OutboxRound> log
) : BackgroundService
{
    private const int FollowedAtOnce = 50;
    private static readonly TimeSpan AfterTrouble = TimeSpan.FromSeconds(5);
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(1);

    private readonly ConcurrentDictionary<string, Task> _asked = new(StringComparer.Ordinal);
    private TaskCompletionSource _woken = new(TaskCreationOptions.RunContinuationsAsynchronously);

    /// <summary>Somebody wants something tried now.</summary>
    public void Wake() => Interlocked.Exchange(ref _woken, new(TaskCreationOptions.RunContinuationsAsynchronously)).TrySetResult();

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await life.CalmAsync(stoppingToken);
        await Task.WhenAll(SayAsync(stoppingToken), FollowAllAsync(stoppingToken));
    }

    private async Task SayAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
            try
            {
                // Before looking: what comes meanwhile wakes.
                var (written, woken, taken) = (news.NextErrand, Volatile.Read(ref _woken).Task, leases.NextTaken);
                var ours = leases.Of(SharedWork.SayingOutside) is not null;
                if (ours)
                    foreach (var partner in await outbox.DueAsync(time.GetUtcNow(), [.. _asked.Keys], stoppingToken))
                        Begin(partner, stoppingToken);
                await Task.WhenAny(
                    written,
                    woken,
                    taken,
                    Task.Delay(ours ? await PauseAsync(stoppingToken) : Longest, time, stoppingToken)
                );
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                log.LogError(e, "The outbox could not be looked at; tried again in a moment");
                await Task.Delay(AfterTrouble, time, stoppingToken);
            }
        await Task.WhenAll(_asked.Values);
    }

    /// <summary>Until something is due; another node may write something as well, so it is looked at once a minute.</summary>
    private async Task<TimeSpan> PauseAsync(CancellationToken ct)
    {
        var pause = (await outbox.NextAsync([.. _asked.Keys], ct) ?? DateTimeOffset.MaxValue) - time.GetUtcNow();
        return pause < TimeSpan.Zero ? TimeSpan.Zero
            : pause > Longest ? Longest
            : pause;
    }

    /// <summary>It is known to be asked before the asking can end: else it would be taken for asked for ever.</summary>
    private void Begin(string partner, CancellationToken ct)
    {
        var asking = new Task<Task>(() => AskAsync(partner, ct));
        _asked[partner] = asking.Unwrap();
        asking.Start(TaskScheduler.Default);
    }

    private async Task AskAsync(string partner, CancellationToken ct)
    {
        try
        {
            var lease = TimeSpan.FromSeconds(settings.AnswerWithinSeconds * 2 + 10);
            while (
                leases.Of(SharedWork.SayingOutside) is not null
                && await outbox.ClaimAsync(partner, time.GetUtcNow(), time.GetUtcNow() + lease, ct) is { } claimed
            )
                await RunAsync(claimed, ct);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            log.LogError(e, "What is to be said to {Partner} could not be said; tried again in a moment", partner);
            await Task.Delay(AfterTrouble, time, ct);
        }
        catch (OperationCanceledException)
        {
            return; // what was not said waits for the next start
        }
        finally
        {
            _asked.TryRemove(partner, out _);
            Wake();
        }
    }

    private async Task RunAsync(ErrandNow claimed, CancellationToken ct)
    {
        try
        {
            await runner.RunAsync(claimed, ct);
        }
        catch (OperationCanceledException) when (ct.IsCancellationRequested)
        {
            // Stopped in the middle of it: whether they heard it is not known, and its id makes it one to them.
            await outbox.LaterAsync(
                claimed.Errand.Id,
                time.GetUtcNow(),
                "The service was stopped in the middle of it.",
                claimed.Tries - 1,
                default
            );
            throw;
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            // One that the service stumbles over each time is given up like any other, and holds nobody up for ever.
            log.LogError(e, "Errand {Errand} for {Partner} could not be done", claimed.Errand.Id, claimed.Errand.To);
            await runner.LaterAsync(claimed, "The service stumbled over it; its log says more.", null, ct);
        }
    }

    /// <summary>Asks carriers what became of parcels that they have, each by itself as well.</summary>
    private async Task FollowAllAsync(CancellationToken ct)
    {
        while (!ct.IsCancellationRequested)
            try
            {
                var taken = leases.NextTaken;
                if (leases.Of(SharedWork.SayingOutside) is null)
                {
                    await Task.WhenAny(taken, Task.Delay(Longest, time, ct));
                    continue;
                }
                var now = time.GetUtcNow();
                var due = await outbox.FollowedAsync(now, now.AddSeconds(settings.AskEverySeconds), FollowedAtOnce, ct);
                await Task.WhenAll(due.GroupBy(one => one.Errand.To).Select(group => FollowAsync(group.Key, group, ct)));
                if (due.Count < FollowedAtOnce)
                    await Task.Delay(TimeSpan.FromSeconds(Math.Clamp(settings.AskEverySeconds, 0.1, 60)), time, ct);
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                log.LogError(e, "Carriers could not be asked what became of parcels; tried again in a moment");
                await Task.Delay(AfterTrouble, time, ct);
            }
    }

    private async Task FollowAsync(string name, IEnumerable<ErrandNow> theirs, CancellationToken ct)
    {
        if (await partners.FindAsync(name, PartnerKind.Carrier, ct) is not { } carrier)
            return;
        foreach (var label in theirs.Select(one => one.Label).OfType<string>())
        {
            var path = $"/parcels/{Uri.EscapeDataString(label)}/events";
            var id = Guid.CreateVersion7(time.GetUtcNow());
            if (
                await calls.AskAsync(carrier, HttpMethod.Get, path, id, null, OutsideJson.Default.ParcelEvents, ct)
                is not Heard<ParcelEvents>.Answer
                (var said)
            )
                return; // it is no good now, and is asked again anyway
            foreach (var happened in said.Events.Where(e => e.Label == label).OrderBy(e => e.At).TakeLast(Parcel.MostTold))
                if (await parcels.TakeAsync(carrier.Name, happened, ct) is { } why)
                    log.LogWarning("{Carrier} said what was not taken. {Why}", carrier.Name, why);
        }
    }
}
