using Nailcrow.Store.Products;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>What the database refuses to do to a table, and in which words.</summary>
/// <param name="On">DELETE, UPDATE or TRUNCATE.</param>
/// <param name="MayGo">A row whose removal the journal tells of may go.</param>
internal sealed record JournalGuard(string Name, string Table, string On, string Reason, bool MayGo = false);

/// <summary>
/// The triggers by which the database itself refuses to change or remove what was written. Somebody with the file can take
/// them away; they are put back at every start, and missing ones are told by verify.
/// </summary>
internal static class JournalGuards
{
    private static readonly JournalGuard[] All =
    [
        new("journal_keeps_every_entry", "journal", "DELETE", "The journal is append-only: entries are never removed."),
        new("journal_keeps_what_was_written", "journal", "UPDATE", "The journal is append-only: entries are never changed."),
        new(
            "photo_keeps_every_picture",
            "photo",
            "DELETE",
            "Pictures belong to the journal: none goes without an entry that says why.",
            MayGo: true
        ),
        new("photo_keeps_what_was_taken", "photo", "UPDATE", "Pictures belong to the journal: none is ever replaced."),
        new("ledger_keeps_every_line", "ledger", "DELETE", "The ledger is append-only: lines are never removed."),
        new("ledger_keeps_what_was_written", "ledger", "UPDATE", "The ledger is append-only: lines are never changed."),
        new("security_keeps_every_line", "security_line", "DELETE", "The security log is append-only: lines are never removed."),
        new("security_keeps_what_was_written", "security_line", "UPDATE", "The security log is append-only: lines are never changed."),
        new("seal_keeps_every_seal", "seal", "DELETE", "Seals are never removed."),
        new("seal_keeps_what_was_sealed", "seal", "UPDATE", "Seals are never changed."),
    ];

    /// <summary>Whether a table's rows stay once they are written.</summary>
    public static bool Keep(string table) => All.Any(g => g.Table == table && g.On == "DELETE");

    /// <summary>Names of guards that are not there, or say something else.</summary>
    public static async Task<IReadOnlyList<string>> MissingAsync(NailcrowDb db, CancellationToken ct)
    {
        var there = await db.Product.GuardsAsync(db, ct);
        return [.. Of(db).Where(g => there.GetValueOrDefault(g.Name) != db.Product.Standing(g)).Select(g => g.Name)];
    }

    /// <summary>Puts back what is missing or was weakened.</summary>
    /// <returns>The names of those that were.</returns>
    public static async Task<IReadOnlyList<string>> PutBackAsync(NailcrowDb db, CancellationToken ct)
    {
        var missing = await MissingAsync(db, ct);
        foreach (var sql in Of(db).Where(g => missing.Contains(g.Name)).SelectMany(db.Product.Setting))
            await Asking.DoAsync(db, sql, ct); // as it stands: braces in it are no places for values
        return missing;
    }

    /// <summary>Those of one table.</summary>
    public static IEnumerable<JournalGuard> OfTable(NailcrowDb db, string table) => Of(db).Where(g => g.Table == table);

    private static IEnumerable<JournalGuard> Of(NailcrowDb db) => db.Product.CanEmptyTables ? [.. All, .. AgainstEmptying] : All;

    /// <summary>A server can empty a table without removing a row of it.</summary>
    private static readonly JournalGuard[] AgainstEmptying =
    [
        .. All.Where(g => g.On == "DELETE").Select(g => new JournalGuard($"{g.Table}_is_never_emptied", g.Table, "TRUNCATE", g.Reason)),
    ];
}
