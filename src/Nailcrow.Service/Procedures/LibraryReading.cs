namespace Nailcrow.Service.Procedures;

/// <summary>Reads and proves the library soon after the start, so that nobody waits for it and the start does not either.</summary>
internal sealed class LibraryReading(ProcedureLibrary library, IHostApplicationLifetime life) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Run(() => life.ApplicationStarted.WaitHandle.WaitOne(), stoppingToken);
        await library.UsableAsync(stoppingToken);
    }
}
