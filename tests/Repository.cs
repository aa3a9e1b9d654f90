namespace Nailcrow.Tests;

/// <summary>Where all of this lies: tests are built somewhere beneath it.</summary>
internal static class Repository
{
    public static string Root { get; } = Find();

    private static string Find()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Nailcrow.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new DirectoryNotFoundException("Nailcrow.slnx is nowhere above the tests.");
    }
}
