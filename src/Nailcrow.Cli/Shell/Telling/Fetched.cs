namespace Nailcrow.Cli.Shell.Telling;

/// <summary>A file that comes from the service.</summary>
internal static class Fetched
{
    /// <summary>Written once all of it has come: what was refused leaves nothing behind, and spoils no file that was there.</summary>
    public static async Task IntoAsync(string path, Func<Stream, Task> fetch, CancellationToken ct)
    {
        using var whole = new MemoryStream();
        await fetch(whole);
        await File.WriteAllBytesAsync(path, whole.ToArray(), ct);
    }
}
