using System.Text;

namespace Nailcrow.Cli.Shell.Telling;

/// <summary>Files that a command makes: never over one that is there, and nobody else's to read where they hold what is kept.</summary>
internal static class NewFiles
{
    public static async Task WriteAsync(string file, string text, CancellationToken ct)
    {
        var path = Path.GetFullPath(file);
        if (File.Exists(path))
            throw new UsageProblem($"{path} exists already; name another file.");
        await using var into = Own(path);
        await into.WriteAsync(Encoding.UTF8.GetBytes(text), ct);
    }

    /// <summary>Open to write, readable by its owner alone.</summary>
    public static FileStream Own(string path)
    {
        var options = new FileStreamOptions { Mode = FileMode.Create, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows())
            options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        return new FileStream(path, options);
    }
}
