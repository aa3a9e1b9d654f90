using Quartz;

namespace Nailcrow.Service.Host.OverTime;

/// <summary>Begins with all that is done every so often once the service answers, and ends after what is just being done.</summary>
internal sealed class Rounds(IServiceProvider services, IHostApplicationLifetime life) : BackgroundService
{
    private IScheduler? _scheduler;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await life.CalmAsync(stoppingToken);
        // Asked for only now: nobody waits for a scheduler to be made.
        _scheduler = await services.GetRequiredService<ISchedulerFactory>().GetScheduler(stoppingToken);
        await _scheduler.Start(stoppingToken);
    }

    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        await base.StopAsync(cancellationToken);
        if (_scheduler is not null)
            await _scheduler.Shutdown(waitForJobsToComplete: true, cancellationToken);
    }
}
