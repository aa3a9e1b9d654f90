using Nailcrow.Service.Host;
using Nailcrow.Service.Host.OverTime;

namespace Nailcrow.Service.Procedures;

/// <summary>Reads and proves the library soon after the start, so that nobody waits for it and the start does not either.</summary>
internal sealed class LibraryReading(
    ProcedureLibrary library,
    IHostApplicationLifetime life,
    ServiceSettings settings,
    ILogger<LibraryReading> log
) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (!settings.ReadsAhead)
            return; // whoever needs it first waits for it: a second or two
        await life.CalmAsync(stoppingToken);
        try
        {
            await library.UsableAsync(stoppingToken);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            // Only done ahead of time: whoever needs it next reads it then, and the service goes on meanwhile.
            log.LogWarning(e, "The library could not be read yet; it is when it is first needed");
        }
        // A proof walks hundreds of thousands of situations; none of them is needed again, and the heap should not stay as large.
        GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
    }
}
