using System.Data.Common;
using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>
/// The triggers by which the database itself refuses to change or remove what was written. Somebody with the file can take
/// them away; they are put back at every start, and missing ones are told by verify.
/// </summary>
internal static class JournalGuards
{
    private sealed record Guard(string Name, string Table, string On, string Reason, string? Unless = null)
    {
        public string Sql =>
            $"CREATE TRIGGER {Name} BEFORE {On} ON {Table} {(Unless is null ? "" : $"WHEN NOT EXISTS ({Unless}) ")}BEGIN SELECT RAISE(ABORT, '{Reason}'); END";
    }

    // Ids stand in capitals in their own column, and small in texts.
    private const string RemovedInTheJournal =
        "SELECT 1 FROM journal WHERE ticket = OLD.ticket AND kind = 'picture-removed' AND json_valid(text) "
        + "AND json_extract(text, '$.body.photo') = lower(OLD.id)";

    private static readonly Guard[] All =
    [
        new("journal_keeps_every_entry", "journal", "DELETE", "The journal is append-only: entries are never removed."),
        new("journal_keeps_what_was_written", "journal", "UPDATE", "The journal is append-only: entries are never changed."),
        new(
            "photo_keeps_every_picture",
            "photo",
            "DELETE",
            "Pictures belong to the journal: none goes without an entry that says why.",
            RemovedInTheJournal
        ),
        new("photo_keeps_what_was_taken", "photo", "UPDATE", "Pictures belong to the journal: none is ever replaced."),
        new("ledger_keeps_every_line", "ledger", "DELETE", "The ledger is append-only: lines are never removed."),
        new("ledger_keeps_what_was_written", "ledger", "UPDATE", "The ledger is append-only: lines are never changed."),
        new("security_keeps_every_line", "security_line", "DELETE", "The security log is append-only: lines are never removed."),
        new("security_keeps_what_was_written", "security_line", "UPDATE", "The security log is append-only: lines are never changed."),
        new("seal_keeps_every_seal", "seal", "DELETE", "Seals are never removed."),
        new("seal_keeps_what_was_sealed", "seal", "UPDATE", "Seals are never changed."),
    ];

    /// <summary>Names of guards that are not there, or say something else.</summary>
    public static async Task<IReadOnlyList<string>> MissingAsync(NailcrowDb db, CancellationToken ct)
    {
        if (!db.Database.IsSqlite())
            return [];
        var there = await ThereAsync(db, ct);
        return [.. All.Where(g => there.GetValueOrDefault(g.Name) != g.Sql).Select(g => g.Name)];
    }

    /// <summary>Puts back what is missing or was weakened.</summary>
    /// <returns>The names of those that were.</returns>
    public static async Task<IReadOnlyList<string>> PutBackAsync(NailcrowDb db, CancellationToken ct)
    {
        var missing = await MissingAsync(db, ct);
        foreach (var guard in All.Where(g => missing.Contains(g.Name)))
        {
            await ExecuteAsync(db, $"DROP TRIGGER IF EXISTS {guard.Name}", ct);
            await ExecuteAsync(db, guard.Sql, ct);
        }
        return missing;
    }

    private static async Task<Dictionary<string, string>> ThereAsync(NailcrowDb db, CancellationToken ct)
    {
        await db.Database.OpenConnectionAsync(ct);
        await using var ask = db.Database.GetDbConnection().CreateCommand();
        ask.CommandText = "SELECT name, sql FROM sqlite_master WHERE type = 'trigger'";
        await using var rows = await ask.ExecuteReaderAsync(ct);
        var there = new Dictionary<string, string>();
        while (await rows.ReadAsync(ct))
            there[rows.GetString(0)] = rows.GetString(1);
        return there;
    }

    private static async Task ExecuteAsync(NailcrowDb db, string sql, CancellationToken ct)
    {
        await using DbCommand command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync(ct);
    }
}
