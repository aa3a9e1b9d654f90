using System.Collections.Concurrent;
using Nailcrow.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Nodes;
using Quartz;

namespace Nailcrow.Service.Intake.Events;

/// <summary>
/// One round over all machines that can be reached: those that push are asked to, what they forgot is renewed, the others' streams
/// are read.
/// </summary>
[DisallowConcurrentExecution]
internal sealed class SubscriptionRound(
    ReferenceBook book,
    MachineStreams streams,
    IMachineEvents events,
    IntakeSettings settings,
    PushKeys keys,
    ILeases leases,
    ILogger<SubscriptionRound> log
) : IJob
{
    private const int AtOnce = 16;
    private const int Page = 500;

    public async ValueTask Execute(IJobExecutionContext context, CancellationToken ct = default) =>
        await leases.DoAsync(SharedWork.HearingMachines, HearAllAsync, ct);

    private async Task HearAllAsync(Lease lease, CancellationToken ct)
    {
        string? after = null;
        while (await book.ListAsync(after, null, Page, ct) is { Count: > 0 } some)
        {
            after = some[^1].Appliance.Asset;
            await Parallel.ForEachAsync(
                some.Where(k => k.Appliance.Address is not null),
                new ParallelOptions { MaxDegreeOfParallelism = AtOnce, CancellationToken = ct },
                async (known, token) => await HearAsync(known.Appliance, lease, token)
            );
        }
    }

    private async Task HearAsync(Appliance appliance, Lease lease, CancellationToken ct)
    {
        if (settings.PublicUrl is not { } us)
        {
            await streams.FollowAsync(appliance, lease, ct);
            return;
        }
        var destination = new Uri($"{us.TrimEnd('/')}/api/intake/redfish/{await keys.OfAsync(appliance.Asset, ct)}");
        if (await events.SubscribeAsync(appliance, destination, ct) is Parsed<string>.Refused(var reason))
            log.LogDebug("No subscription: {Reason}", reason);
    }
}

/// <summary>Event streams that are being read, one a machine.</summary>
internal sealed class MachineStreams(
    IMachineEvents events,
    Reception reception,
    TimeProvider time,
    IHostApplicationLifetime life,
    ILogger<MachineStreams> log
)
{
    // Each is a connection held open; beyond so many, machines have to push.
    private const int Most = 500;

    private readonly ConcurrentDictionary<string, Task> _followed = new();

    public async Task FollowAsync(Appliance appliance, Lease lease, CancellationToken ct)
    {
        if (_followed.TryGetValue(appliance.Asset, out var running) && !running.IsCompleted)
            return;
        if (_followed.Values.Count(t => !t.IsCompleted) >= Most && running is null)
            return;
        // The stream outlives the round that opened it, and ends with the service, or when another node reads it.
        var ending = CancellationTokenSource.CreateLinkedTokenSource(life.ApplicationStopping, lease.Over);
        if (await events.StreamAsync(appliance, ending.Token) is Parsed<IAsyncEnumerable<MachineEvent>>.Ok(var stream))
            _followed[appliance.Asset] = ReadAsync(appliance.Asset, stream, ending);
        else
            ending.Dispose();
    }

    private async Task ReadAsync(string asset, IAsyncEnumerable<MachineEvent> stream, CancellationTokenSource ending)
    {
        using var ended = ending;
        try
        {
            await foreach (var said in stream)
                await reception.KeepAsync(MachineEventIntake.Of(asset, said, time.GetUtcNow()), life.ApplicationStopping);
        }
        catch (Exception e) when (e is IOException or HttpRequestException or OperationCanceledException)
        {
            log.LogDebug(e, "The event stream of {Asset} ended; the next round opens it again", asset);
        }
    }
}
