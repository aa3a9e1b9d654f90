namespace Nailcrow.Service.Host.Resting;

/// <summary>
/// Once the service has worked and rests, gives back what the work took: garbage that nobody sweeps while nothing is made, and pages of
/// program files. Most of a day and all of a night nobody asks anything, often on a machine that has other things to do.
/// </summary>
internal sealed class AtRest(ServiceSettings settings, ILogger<AtRest> log) : BackgroundService
{
    // Of one processor: an idle service takes half of it for what it looks after over time, one person who turns pages takes more.
    private const double RestingAtMost = 0.01;

    // Below this there is too little to give back for stopping everybody the tenth of a second that a whole sweep takes.
    private const long GrownBytes = 6 * 1024 * 1024;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (settings.RestsAfterSeconds == 0)
            return;
        var window = TimeSpan.FromSeconds(settings.RestsAfterSeconds);
        var (left, before) = (0L, Environment.CpuUsage.TotalTime);
        // By the machine's clock, whatever time the service was given: it is about the processor.
        using var looks = new PeriodicTimer(window);
        while (await looks.WaitForNextTickAsync(stoppingToken))
        {
            var now = Environment.CpuUsage.TotalTime;
            if (now - before <= window * RestingAtMost && Environment.WorkingSet - left >= GrownBytes)
            {
                GiveProgramPagesBack();
                GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true); // last: telling mappings makes garbage
                (left, now) = (Environment.WorkingSet, Environment.CpuUsage.TotalTime);
            }
            before = now;
        }
    }

    private void GiveProgramPagesBack()
    {
        try
        {
            log.LogDebug("At rest: {Bytes} bytes of program files given back", ProgramPages.GiveBack());
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or DllNotFoundException or EntryPointNotFoundException)
        {
            log.LogDebug(e, "At rest: this machine does not let a process see its own mappings"); // as some containers do; memory stays as it is
        }
    }
}
