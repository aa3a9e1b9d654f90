using Nailcrow.Service.Host;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Store.Intake;
using Nailcrow.Store.Nodes;
using Quartz;

namespace Nailcrow.Service.Intake;

/// <summary>Lets go of messages that were kept long enough: what came of them is in the journal, and nobody waits for them.</summary>
[DisallowConcurrentExecution]
internal sealed class TrimRound(IntakeLog intake, IntakeSettings settings, ILeases leases, TimeProvider time, ILogger<TrimRound> log) : IJob
{
    public async ValueTask Execute(IJobExecutionContext context, CancellationToken ct = default) =>
        await leases.DoAsync(SharedWork.JoiningAlerts, (_, token) => TrimAsync(token), ct);

    private async Task TrimAsync(CancellationToken ct)
    {
        var gone = await intake.TrimAsync(time.GetUtcNow().AddMonths(-settings.KeepMonths), ct);
        if (gone > 0)
            log.LogInformation("{Count} messages that came in over {Months} months ago are kept no more", gone, settings.KeepMonths);
    }
}
