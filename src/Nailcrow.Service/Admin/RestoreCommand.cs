using Nailcrow.Service.Host;
using Nailcrow.Store;

namespace Nailcrow.Service.Admin;

/// <summary><c>nailcrow-service restore FILE [--Nailcrow:Data=PLACE]</c>: puts a backup where nothing is yet, and does no more.</summary>
internal static class RestoreCommand
{
    private const int Done = 0,
        Refused = 1,
        Usage = 2;

    public static int Run(string[] args)
    {
        if (args is not ["restore", var backup, .. var rest] || backup.StartsWith('-'))
        {
            Console.Error.WriteLine(
                "Say which backup: nailcrow-service restore FILE [--Nailcrow:Data=PLACE]. 'nailcrow admin backup FILE' makes one."
            );
            return Usage;
        }
        var settings =
            new ConfigurationBuilder().AddEnvironmentVariables().AddCommandLine(rest).Build().GetSection("Nailcrow").Get<ServiceSettings>()
            ?? new();
        if (settings.Database is not null)
        {
            Console.Error.WriteLine(
                "Nailcrow:Database is set: the record is on PostgreSQL, and a backup of the file would be read by nobody. docs/running.md "
                    + "says how a server's is brought back; without that setting the file is restored."
            );
            return Refused;
        }
        var place = Path.GetFullPath(settings.Data);
        try
        {
            if (BackupFile.Restore(Path.GetFullPath(backup), place) is { } problem)
            {
                Console.Error.WriteLine(problem);
                return Refused;
            }
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            Console.Error.WriteLine($"It could not be restored: {e.Message}");
            return Refused;
        }
        Console.WriteLine(
            $"{place} is as it was when {Path.GetFileName(backup)} was made. Start the service with the same "
                + "--Nailcrow:Data, and let 'nailcrow admin verify' look it over."
        );
        return Done;
    }
}
