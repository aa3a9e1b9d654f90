namespace Nailcrow.Running;

/// <summary>Where the build put things.</summary>
public static class Built
{
    public static readonly string Root = Repository.Root;

    // The tests run what was built beside them: .../bin/Release/net10.0 starts the Release service.
    private static readonly string Tail = Path.GetRelativePath(
        Path.Combine(AppContext.BaseDirectory, "..", ".."),
        AppContext.BaseDirectory
    );

    // Compiled ahead of time, where test.sh has done so; else as it was built. Each test starts several of them, and what is not compiled
    // takes a second or three before it answers.
    private static readonly string? Compiled = Environment.GetEnvironmentVariable("NAILCROW_TESTED") is { Length: > 0 } folder
        ? folder
        : null;

    public static string Service { get; } = Assembly("Nailcrow.Service", "nailcrow-service");

    public static string StandIn { get; } = Assembly("Nailcrow.StandIn", "nailcrow-standin");

    /// <summary>A browser: the part of it that has no window, where a Debian has that by itself.</summary>
    public static string Browser => new[] { "/usr/bin/chromium-headless-shell", "/usr/bin/chromium" }.First(File.Exists);

    /// <summary>How the command is started.</summary>
    public static IReadOnlyList<string> Command { get; } =
        Compiled is null ? ["dotnet", Assembly("Nailcrow.Cli", "nailcrow")] : [Path.Combine(Compiled, "nailcrow")];

    /// <summary>The file to start, where no <c>dotnet</c> stands before it.</summary>
    public static IReadOnlyList<string> Programs { get; } =
    [
        Command is [var released] ? released : Path.ChangeExtension(Command[^1], null),
        Path.ChangeExtension(Service, null),
        Path.ChangeExtension(StandIn, null),
    ];

    private static string Assembly(string project, string name) =>
        Compiled is null ? Path.Combine(Root, "src", project, "bin", Tail, $"{name}.dll") : Path.Combine(Compiled, $"{name}.dll");

    /// <summary>
    /// What a program that lives for one test is started with: starting is most of its life, so what it does a few times is
    /// compiled once, and not again for speed. Whatever is measured goes without.
    /// </summary>
    public static IReadOnlyDictionary<string, string> LivesShort { get; } =
        new Dictionary<string, string> { ["DOTNET_TieredPGO"] = "0", ["DOTNET_TC_CallCountThreshold"] = "2000" };
}
