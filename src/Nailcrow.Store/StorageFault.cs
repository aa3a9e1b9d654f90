using Microsoft.Data.Sqlite;

namespace Nailcrow.Store;

/// <summary>What keeps anything from being kept, whatever it is: no entry is to blame for it.</summary>
public enum StorageFault
{
    Gone,
    Full,
    WriteProtected,
    Held,
    CannotOpen,
    DiskError,
    Damaged,
}

public static class StorageFaults
{
    // errno of Linux: ENOSPC, EROFS.
    private const int NoSpace = 28,
        ReadOnlyFiles = 30;

    /// <summary>What is wrong with the storage; null where it is something else. Result codes of SQLite: sqlite.org/rescode.html.</summary>
    public static StorageFault? Of(Exception? exception) =>
        exception switch
        {
            null => null,
            DatabaseGoneException => StorageFault.Gone,
            SqliteException { SqliteErrorCode: 13 } => StorageFault.Full,
            SqliteException { SqliteErrorCode: 8 } => StorageFault.WriteProtected,
            SqliteException { SqliteErrorCode: 5 or 6 } => StorageFault.Held,
            SqliteException { SqliteErrorCode: 14 } => StorageFault.CannotOpen,
            SqliteException { SqliteErrorCode: 10 } => StorageFault.DiskError,
            SqliteException { SqliteErrorCode: 11 or 26 } => StorageFault.Damaged,
            IOException { HResult: NoSpace } => StorageFault.Full,
            IOException { HResult: ReadOnlyFiles } => StorageFault.WriteProtected,
            _ => Of(exception.InnerException),
        };
}
