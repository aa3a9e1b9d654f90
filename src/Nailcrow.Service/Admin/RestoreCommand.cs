using Nailcrow.Store;
using Nailcrow.Store.OnFile;
using static Nailcrow.Service.Host.OnTheMachine;

namespace Nailcrow.Service.Admin;

/// <summary><c>nailcrow-service restore FILE [--Nailcrow:Data=PLACE]</c>: puts a backup where nothing is yet, and does no more.</summary>
internal static class RestoreCommand
{
    public const string Usual = "nailcrow-service restore FILE [--Nailcrow:Data=PLACE]";

    public static int Run(string[] args)
    {
        if (args is not ["restore", var backup, .. var rest] || backup.StartsWith('-'))
            return Say($"Say which backup: {Usual}. 'nailcrow admin backup FILE' makes one.", Usage);
        if (NoSetting(rest) is { } word)
            return Say($"'{word}' is nothing that is taken: {Usual}.", Usage);
        var settings = Settings(rest);
        if (settings.Database is not null)
            return Say(
                "Nailcrow:Database is set: the record is on PostgreSQL, and a backup of the file would be read by nobody. docs/running.md "
                    + "says how a server's is brought back; without that setting the file is restored.",
                Refused
            );
        if (settings.ProblemsOfThePlace().FirstOrDefault() is { } unusable)
            return Say(unusable, Refused);
        var place = Path.GetFullPath(settings.Data);
        try
        {
            if (BackupFile.Restore(Path.GetFullPath(backup), place) is { } problem)
                return Say(problem, Refused);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return Say($"It could not be restored: {e.Message}", Refused);
        }
        Console.WriteLine(
            $"{place} is as it was when {Path.GetFileName(backup)} was made. Start the service with the same "
                + "--Nailcrow:Data, and let 'nailcrow admin verify' look it over."
        );
        return Done;
    }
}
