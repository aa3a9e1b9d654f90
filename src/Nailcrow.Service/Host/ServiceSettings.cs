namespace Nailcrow.Service.Host;

/// <summary>What the service is told at start, from the section "Nailcrow" of its configuration.</summary>
public sealed record ServiceSettings
{
    /// <summary>The database file. Default nailcrow.db in the folder it is started from.</summary>
    public string Data { get; init; } = "nailcrow.db";

    /// <summary>The folder of procedure files. Default: procedures.</summary>
    public string Procedures { get; init; } = "procedures";

    /// <summary>How often a machine with a rebuild is asked, in seconds. Default 60, at least 1: a machine's display
    /// moves once in several minutes, and its management processor is slow.</summary>
    public double WatchEverySeconds { get; init; } = 60;

    /// <summary>How often everything written is sealed, in hours. Default 24, 0 for never, at most 720. A seal costs what was
    /// written since the last; what is sealed seldom can be rewritten unnoticed for as long.</summary>
    public double SealEveryHours { get; init; } = 24;

    /// <summary>The administrator made at the first start, when nobody can sign in yet.</summary>
    public FirstAdmin? FirstAdmin { get; init; }

    /// <summary>All faults at once, each as a sentence.</summary>
    public IEnumerable<string> Problems()
    {
        if (WatchEverySeconds is < 1 or > 3600)
            yield return $"Nailcrow:WatchEverySeconds is {WatchEverySeconds}; accepted: 1 to 3600.";
        if (SealEveryHours is < 0 or > 720)
            yield return $"Nailcrow:SealEveryHours is {SealEveryHours}; accepted: 0 to 720, 0 for never.";
        if (!Directory.Exists(Procedures))
            yield return $"Nailcrow:Procedures is '{Path.GetFullPath(Procedures)}', which is no folder.";
        if (Path.GetDirectoryName(Path.GetFullPath(Data)) is { } folder && !Directory.Exists(folder))
            yield return $"Nailcrow:Data is in '{folder}', which is no folder.";
    }
}

public sealed record FirstAdmin(string Name, string Password);
