using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Npgsql;

namespace Nailcrow.Store.Products;

/// <summary>Parts of a table on a server, made and let go of while others read and write it.</summary>
internal static class Parts
{
    private const string Savepoint = "parts";

    /// <summary>The parts of a table that have an end, as rows of name and end.</summary>
    /// <param name="kind">What the table is parted by: bigint or timestamptz.</param>
    public static string Of(string table, string kind) =>
        $"(SELECT c.oid::regclass::text AS name, (regexp_match(pg_get_expr(c.relpartbound, c.oid), 'TO \\(''([^'']+)''\\)'))[1]::{kind} AS ends "
        + $"FROM pg_inherits i JOIN pg_class c ON c.oid = i.inhrelid WHERE i.inhparent = '{table}'::regclass) AS part";

    /// <summary>The words that make a part.</summary>
    /// <param name="filling">Words that bring what lies of it elsewhere over before it is one.</param>
    public static string Making(string table, string part, string from, string to, string filling = "") =>
        $"CREATE TABLE {part} (LIKE {table} INCLUDING DEFAULTS); {filling}"
        + $"ALTER TABLE {table} ATTACH PARTITION {part} FOR VALUES FROM ('{from}') TO ('{to}')";

    /// <summary>
    /// Does something to the parts, in the transaction that is open or in one of its own. Everybody who writes may wait for it, so it waits for
    /// nobody for long.
    /// </summary>
    /// <returns>Whether it was done; nobody is kept from anything where it was not.</returns>
    public static async Task<bool> TriedAsync(NailcrowDb db, Func<Task> change, CancellationToken ct)
    {
        await using var own = db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(ct) : null;
        var transaction = own ?? db.Database.CurrentTransaction!;
        await transaction.CreateSavepointAsync(Savepoint, ct);
        try
        {
            await Asking.DoAsync(db, "SET LOCAL lock_timeout = '500ms'", ct);
            await change();
            await Asking.DoAsync(db, "SET LOCAL lock_timeout = DEFAULT", ct);
            await transaction.ReleaseSavepointAsync(Savepoint, ct);
            await (own?.CommitAsync(ct) ?? Task.CompletedTask);
            return true;
        }
        catch (PostgresException e) when (IsInTheWay(e))
        {
            await transaction.RollbackToSavepointAsync(Savepoint, ct);
            return false;
        }
    }

    /// <summary>
    /// Somebody reads for long; what would be in the part lies elsewhere; a node that makes the same was quicker; tables are made by somebody
    /// else here.
    /// </summary>
    private static bool IsInTheWay(PostgresException e) =>
        e.SqlState
            is PostgresErrorCodes.LockNotAvailable
                or PostgresErrorCodes.CheckViolation
                or PostgresErrorCodes.DuplicateTable
                or PostgresErrorCodes.InsufficientPrivilege;
}
