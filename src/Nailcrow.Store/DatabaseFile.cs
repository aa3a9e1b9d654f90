namespace Nailcrow.Store;

/// <summary>Where the embedded database lies, and whether it still does: an open file goes on being written to after it was removed.</summary>
public sealed record DatabaseFile(string Path)
{
    /// <summary>When the file now at its place was made; null where there is none.</summary>
    internal DateTime? Born => File.Exists(Path) ? File.GetCreationTimeUtc(Path) : null;
}
