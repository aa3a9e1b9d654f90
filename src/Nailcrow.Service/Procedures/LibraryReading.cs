using Nailcrow.Service.Host;

namespace Nailcrow.Service.Procedures;

/// <summary>Reads and proves the library soon after the start, so that nobody waits for it and the start does not either.</summary>
internal sealed class LibraryReading(ProcedureLibrary library, IHostApplicationLifetime life) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await life.CalmAsync(stoppingToken);
        await library.UsableAsync(stoppingToken);
        // A proof walks hundreds of thousands of situations; none of them is needed again, and the heap should not stay as large.
        GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
    }
}
