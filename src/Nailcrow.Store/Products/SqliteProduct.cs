using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Journal;

namespace Nailcrow.Store.Products;

/// <summary>The embedded default: one file, and one process that writes it.</summary>
internal sealed class SqliteProduct : DatabaseProduct
{
    public override async Task MadeAsync(NailcrowDb db, CancellationToken ct) =>
        // Write-ahead logging is kept in the file, so once is enough; readers then never wait for the writer.
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode = WAL", ct);

    public override async Task<IDbContextTransaction> BeginReadingAsync(NailcrowDb db, CancellationToken ct)
    {
        await db.Database.OpenConnectionAsync(ct);
        // The usual way to begin one would take the writers' lock at once.
        return
            db.Database.GetDbConnection() is SqliteConnection connection
            && await db.Database.UseTransactionAsync(connection.BeginTransaction(deferred: true), ct) is { } begun
            ? begun
            : throw new InvalidOperationException("A transaction that was just begun is none.");
    }

    /// <summary>Whoever begins has the file's lock, and is alone in everything.</summary>
    public override Task<IDbContextTransaction> BeginAsync(NailcrowDb db, WritersTurn turn, CancellationToken ct) =>
        db.Database.BeginTransactionAsync(ct);

    public override async Task<IReadOnlyDictionary<string, string>> GuardsAsync(NailcrowDb db, CancellationToken ct)
    {
        await using var rows = await Asking.RowsAsync(db, "SELECT name, sql FROM sqlite_master WHERE type = 'trigger'", ct);
        var there = new Dictionary<string, string>();
        while (await rows.Reader.ReadAsync(ct))
            there[rows.Reader.GetString(0)] = rows.Reader.GetString(1);
        return there;
    }

    public override string Standing(JournalGuard guard) =>
        $"CREATE TRIGGER {guard.Name} BEFORE {guard.On} ON {guard.Table} {(guard.MayGo ? $"WHEN NOT EXISTS ({RemovedInTheJournal}) " : "")}"
        + $"BEGIN SELECT RAISE(ABORT, '{guard.Reason}'); END";

    public override IEnumerable<string> Setting(JournalGuard guard) => [$"DROP TRIGGER IF EXISTS {guard.Name}", Standing(guard)];

    // Ids stand in capitals in their own column, and small in texts.
    private const string RemovedInTheJournal =
        "SELECT 1 FROM journal WHERE ticket = OLD.ticket AND kind = 'picture-removed' AND json_valid(text) "
        + "AND json_extract(text, '$.body.photo') = lower(OLD.id)";

    public override Task<long> EverGivenAsync(NailcrowDb db, string table, CancellationToken ct) =>
        Asking.NumberAsync(
            db,
            $"SELECT COALESCE((SELECT seq FROM sqlite_sequence WHERE name = '{table}'), 0) "
                + $"- COALESCE((SELECT numbers FROM never_given WHERE name = '{table}'), 0)",
            ct
        );

    /// <summary>By FTS5 with its trigram tokeniser; triggers of its migration keep it as the lists are.</summary>
    public override IQueryable<TicketLineRow> HavingPart(NailcrowDb db, IQueryable<TicketLineRow> lines, string text, long number)
    {
        var phrase = $"\"{text.Replace("\"", "\"\"")}\""; // as it is: nothing in it is a word of the query language
        var found = db.Database.SqlQuery<long>($"SELECT rowid AS \"Value\" FROM ticket_part WHERE ticket_part MATCH {phrase}");
        return lines.Where(l => l.Number == number || found.Contains(l.Number));
    }

    public override async Task RefillPartsAsync(NailcrowDb db)
    {
        await db.Database.ExecuteSqlRawAsync("INSERT INTO ticket_part (ticket_part) VALUES ('delete-all')");
        await db.Database.ExecuteSqlRawAsync(
            "INSERT INTO ticket_part (rowid, text) "
                + "SELECT number, asset || char(10) || coalesce(serial, '') || char(10) || site || char(10) || customer FROM ticket_line"
        );
    }

    public override async Task WriteOverAsync(NailcrowDb db, bool begin) =>
        await db.Database.ExecuteSqlRawAsync(begin ? "PRAGMA secure_delete = ON" : "PRAGMA secure_delete = OFF");
}
