using Nailcrow.Service.Host;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;
using Quartz;

namespace Nailcrow.Service.Admin;

/// <summary>A seal over the day, whether or not anybody thought of it.</summary>
[DisallowConcurrentExecution]
internal sealed class SealRound(Seals seals, ILeases leases, ILogger<SealRound> log) : IJob
{
    public async ValueTask Execute(IJobExecutionContext context, CancellationToken ct = default) =>
        await leases.DoAsync(SharedWork.Sealing, (_, token) => SealAsync(token), ct);

    private async Task SealAsync(CancellationToken ct)
    {
        var made = await seals.SealAsync(ct);
        log.LogInformation(
            "Seal {Number} covers {Entries} entries: {File}. Copy it elsewhere",
            made.Number,
            made.Entries,
            seals.FileOf(made.Number)
        );
    }
}
