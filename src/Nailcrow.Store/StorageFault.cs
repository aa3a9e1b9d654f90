using System.Net.Sockets;
using Microsoft.Data.Sqlite;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.OnFile;
using Npgsql;

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

    /// <summary>The server does not answer, has no room for one more, or is just starting or stopping.</summary>
    Away,

    /// <summary>The server answers, and does not let the service in, or not do there what it has to.</summary>
    NotLetIn,

    /// <summary>The node's clock is not the database's.</summary>
    ClockOff,

    /// <summary>What is there is protected by keys that this node was not given.</summary>
    NoKey,
}

/// <summary>Something is protected by keys that this node was not given.</summary>
public sealed class NoKeyException() : Exception("It is protected by keys that this node does not have.");

public static class StorageFaults
{
    // Result codes of SQLite, sqlite.org/rescode.html.
    private const int Wrong = 1,
        Busy = 5,
        Locked = 6,
        ReadOnly = 8,
        Disk = 10,
        Corrupt = 11,
        DiskFull = 13,
        NotOpened = 14,
        NoDatabase = 26;

    // errno of Linux: ENOSPC, EROFS.
    private const int NoSpace = 28,
        ReadOnlyFiles = 30;

    /// <summary>A server ended the connection, and may well take another: it was started anew, or this process stood still for too long.</summary>
    public static bool IsCut(Exception? exception) =>
        exception switch
        {
            null => false,
            PostgresException { SqlState: PostgresErrorCodes.AdminShutdown or PostgresErrorCodes.CrashShutdown } => true,
            SocketException { SocketErrorCode: SocketError.ConnectionReset or SocketError.Shutdown or SocketError.ConnectionAborted } =>
                true,
            EndOfStreamException => true,
            _ => IsCut(exception.InnerException),
        };

    /// <summary>It has no such table or column: another release kept it, or none of ours.</summary>
    public static bool IsOfAnotherForm(Exception? exception) =>
        exception switch
        {
            null => false,
            PostgresException { SqlState: PostgresErrorCodes.UndefinedTable or PostgresErrorCodes.UndefinedColumn } => true,
            SqliteException { SqliteErrorCode: Wrong } said => NoSuch.Any(no => said.Message.Contains(no, StringComparison.Ordinal)),
            _ => IsOfAnotherForm(exception.InnerException),
        };

    // SQLite has one code for all that is wrong with a statement.
    private static readonly string[] NoSuch = ["no such table", "no such column", "has no column named"];

    /// <summary>What is wrong with the storage; null where it is something else.</summary>
    public static StorageFault? Of(Exception? exception) =>
        exception switch
        {
            null => null,
            DatabaseGoneException => StorageFault.Gone,
            NoKeyException => StorageFault.NoKey,
            ClockOffException => StorageFault.ClockOff,
            SqliteException { SqliteErrorCode: DiskFull } => StorageFault.Full,
            SqliteException { SqliteErrorCode: ReadOnly } => StorageFault.WriteProtected,
            SqliteException { SqliteErrorCode: Busy or Locked } => StorageFault.Held,
            SqliteException { SqliteErrorCode: NotOpened } => StorageFault.CannotOpen,
            SqliteException { SqliteErrorCode: Disk } => StorageFault.DiskError,
            SqliteException { SqliteErrorCode: Corrupt or NoDatabase } => StorageFault.Damaged,
            PostgresException { SqlState: PostgresErrorCodes.DiskFull } => StorageFault.Full,
            PostgresException { SqlState: PostgresErrorCodes.ReadOnlySqlTransaction } => StorageFault.WriteProtected,
            PostgresException { SqlState: PostgresErrorCodes.LockNotAvailable } => StorageFault.Held,
            PostgresException { SqlState: PostgresErrorCodes.IoError } => StorageFault.DiskError,
            PostgresException { SqlState: PostgresErrorCodes.DataCorrupted or PostgresErrorCodes.IndexCorrupted } => StorageFault.Damaged,
            PostgresException
            {
                SqlState: PostgresErrorCodes.AdminShutdown
                    or PostgresErrorCodes.CrashShutdown
                    or PostgresErrorCodes.CannotConnectNow
                    or PostgresErrorCodes.TooManyConnections
            } => StorageFault.Away,
            PostgresException
            {
                SqlState: PostgresErrorCodes.InvalidPassword
                    or PostgresErrorCodes.InvalidAuthorizationSpecification
                    or PostgresErrorCodes.InvalidCatalogName
                    or PostgresErrorCodes.InsufficientPrivilege
            } => StorageFault.NotLetIn,
            PostgresException => Of(exception.InnerException),
            NpgsqlException => StorageFault.Away, // what the server did not say was said of the way to it
            IOException { HResult: NoSpace } => StorageFault.Full,
            IOException { HResult: ReadOnlyFiles } => StorageFault.WriteProtected,
            _ => Of(exception.InnerException),
        };
}
