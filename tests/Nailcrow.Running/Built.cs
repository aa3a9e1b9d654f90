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

    private static string FindRoot()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Nailcrow.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new DirectoryNotFoundException("Nailcrow.slnx is nowhere above the tests.");
    }
}
