using Nailcrow.Service.Host;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Store;
using Nailcrow.Store.Intake;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Admin;

/// <summary>
/// What is put in order after a start, while the service answers: lists told by older rules, secrets that lay in clear, what a
/// killed backup left.
/// </summary>
internal sealed class ListKeeper(
    Projections projections,
    EventSenders senders,
    BackupFile backups,
    ILeases leases,
    TimeProvider time,
    IHostApplicationLifetime life,
    ILogger<ListKeeper> log
) : BackgroundService
{
    private static readonly TimeSpan AgainAfter = TimeSpan.FromMinutes(1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await life.CalmAsync(stoppingToken);
        Sweep();
        while (!stoppingToken.IsCancellationRequested)
            try
            {
                var taken = leases.NextTaken;
                if (leases.Of(SharedWork.TellingLists) is not null && await projections.AreStaleAsync(stoppingToken))
                {
                    await senders.ProtectAllAsync(stoppingToken);
                    var told = await projections.BringUpToDateAsync(stoppingToken) + await projections.TellMissingAsync(stoppingToken);
                    log.LogInformation("Lists of {Tickets} tickets were told anew by today's rules", told);
                }
                // A node of the release before tells by its own rules until it is upgraded too.
                await Task.WhenAny(taken, Task.Delay(AgainAfter, time, stoppingToken));
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                log.LogError(e, "The lists could not be told anew; tried again in a minute");
                await Task.Delay(AgainAfter, time, stoppingToken);
            }
    }

    private void Sweep()
    {
        try
        {
            backups.Sweep(time.GetUtcNow());
        }
        catch (IOException e)
        {
            log.LogWarning(e, "What a backup left behind could not be removed; the next start tries again");
        }
    }
}
