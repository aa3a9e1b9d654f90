namespace Nailcrow.Store.OnFile;

/// <summary>The file that is written to is not the one at the database's place any more; what is written to it would be lost.</summary>
public sealed class DatabaseGoneException(string path)
    : IOException($"The database {path} has gone from its place, or another was put there.");
