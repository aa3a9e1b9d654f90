namespace Nailcrow.Running;

/// <summary>Where the build put things.</summary>
public static class Built
{
    public static readonly string Root = FindRoot();

    // The tests run what was built beside them: .../bin/Release/net10.0 starts the Release service.
    private static readonly string Tail = Path.GetRelativePath(
        Path.Combine(AppContext.BaseDirectory, "..", ".."),
        AppContext.BaseDirectory
    );

    public static string Assembly(string project, string name) => Path.Combine(Root, "src", project, "bin", Tail, $"{name}.dll");

    public static string Service { get; } = Assembly("Nailcrow.Service", "nailcrow-service");

    /// <summary>
    /// How the command is started: as it is released, where test.sh has compiled it so; else as it was built. Each test starts it
    /// many times, and compiling it anew takes two seconds each time.
    /// </summary>
    public static IReadOnlyList<string> Command { get; } =
        Environment.GetEnvironmentVariable("NAILCROW_TESTED_COMMAND") is { Length: > 0 } released
            ? [released]
            : ["dotnet", Assembly("Nailcrow.Cli", "nailcrow")];

    /// <summary>
    /// What a program that lives for one test is started with: starting is most of its life, so what it does a few times is
    /// compiled once, and not again for speed. Whatever is measured goes without.
    /// </summary>
    public static IReadOnlyDictionary<string, string> LivesShort { get; } =
        new Dictionary<string, string> { ["DOTNET_TieredPGO"] = "0", ["DOTNET_TC_CallCountThreshold"] = "2000" };

    private static string FindRoot()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Nailcrow.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new DirectoryNotFoundException("Nailcrow.slnx is nowhere above the tests.");
    }
}
