using System.Data.Common;
using System.Globalization;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>
/// Until 0.1.0 an entry's parts stood in columns, and its text was made anew from today's types whenever it was verified. The
/// parts are put together once, exactly as they were hashed then, and only the text is believed from then on. A piece at a
/// time, each in a transaction of its own: interrupted, it goes on where it was.
/// </summary>
internal static class JournalUpgrade
{
    /// <summary>What the migration renamed the old table to.</summary>
    public const string Before = "journal_before";

    private const int AtOnce = 5_000;

    private static readonly Func<object?, object?> ToTime = new DateTimeOffsetToBinaryConverter().ConvertFromProvider;

    public static async Task RunAsync(NailcrowDb db, CancellationToken ct)
    {
        await db.Database.OpenConnectionAsync(ct);
        if (await ScalarAsync(db, $"SELECT COUNT(*) FROM sqlite_master WHERE type = 'table' AND name = '{Before}'", ct) == 0)
            return;
        while (await SomeAsync(db, ct) > 0)
            continue;
        await using var drop = Command(db, $"DROP TABLE {Before}");
        await drop.ExecuteNonQueryAsync(ct);
    }

    private static async Task<int> SomeAsync(NailcrowDb db, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var done = await ScalarAsync(db, "SELECT COALESCE(MAX(position), 0) FROM journal", ct);
        var rows = new List<JournalRow>();
        await using (
            var ask = Command(
                db,
                "SELECT position, ticket, seq, id, at, clock_offset_ms, recorded_at, \"by\", kind, body, hash FROM "
                    + $"{Before} WHERE position > {done} ORDER BY position LIMIT {AtOnce}"
            )
        )
        await using (var found = await ask.ExecuteReaderAsync(ct))
            while (await found.ReadAsync(ct))
                rows.Add(Row(found));
        db.Journal.AddRange(rows);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        db.ChangeTracker.Clear();
        return rows.Count;
    }

    private static JournalRow Row(DbDataReader found)
    {
        var (at, recordedAt) = (Time(found.GetInt64(4)), Time(found.GetInt64(6)));
        var open = new Entry(
            Guid.Parse(found.GetString(3)),
            found.GetInt64(1),
            found.GetInt64(2),
            at,
            found.GetInt64(5),
            recordedAt,
            found.GetString(7),
            new Unreadable(found.GetString(8), "", ""),
            ""
        );
        return new()
        {
            Position = found.GetInt64(0),
            Ticket = open.Ticket,
            Seq = open.Seq,
            Id = open.Id,
            At = at,
            RecordedAt = recordedAt,
            By = open.By,
            Kind = found.GetString(8),
            Text = Text(open, found.GetString(9)),
            Hash = found.GetString(10),
        };
    }

    private static string Text(Entry open, string body)
    {
        try
        {
            using var said = JsonDocument.Parse(body);
            return EntryText.Of(open, said.RootElement);
        }
        catch (JsonException)
        {
            return body; // somebody had changed it already; verify says so, and nothing is made up
        }
    }

    private static DateTimeOffset Time(long kept) => (DateTimeOffset)ToTime(kept)!; // a number is always a time

    private static DbCommand Command(NailcrowDb db, string sql)
    {
        var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = sql;
        command.Transaction = db.Database.CurrentTransaction is { } current
            ? Microsoft.EntityFrameworkCore.Storage.DbContextTransactionExtensions.GetDbTransaction(current)
            : null;
        return command;
    }

    private static async Task<long> ScalarAsync(NailcrowDb db, string sql, CancellationToken ct)
    {
        await using var ask = Command(db, sql);
        return Convert.ToInt64(await ask.ExecuteScalarAsync(ct), CultureInfo.InvariantCulture);
    }
}
