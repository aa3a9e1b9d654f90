using System.Data;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Rows;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Journal;

namespace Nailcrow.Store.Products;

/// <summary>A database server that several nodes write to.</summary>
internal sealed class PostgresProduct : DatabaseProduct
{
    // Of all advisory locks in the database, those that Nailcrow takes: "nail", and what for.
    private static long Lock(WritersTurn turn) => (0x6E61696CL << 32) | (long)turn;

    // A turn takes milliseconds. One whose node is gone without a word, or stands still, is ended by the server, which else would keep it for
    // whoever does not come: for two hours, as TCP is set by most.
    private const string LongestIdleInTurn = "10s";

    /// <summary>By the context's connection: whoever dies in it lets go with that.</summary>
    public override async Task<IAsyncDisposable> TurnAsync(NailcrowDb db, WritersTurn turn, CancellationToken ct)
    {
        await db.Database.OpenConnectionAsync(ct);
        await Asking.DoAsync(db, $"SELECT pg_advisory_lock({Lock(turn)})", ct);
        return new LongTurn(db, turn);
    }

    private sealed class LongTurn(NailcrowDb db, WritersTurn turn) : IAsyncDisposable
    {
        public async ValueTask DisposeAsync() =>
            await Asking.DoAsync(db, $"SELECT pg_advisory_unlock({Lock(turn)})", CancellationToken.None);
    }

    public override Task<IDbContextTransaction> BeginReadingAsync(NailcrowDb db, CancellationToken ct) =>
        db.Database.BeginTransactionAsync(IsolationLevel.RepeatableRead, ct);

    public override async Task<IDbContextTransaction> BeginAsync(NailcrowDb db, WritersTurn turn, CancellationToken ct)
    {
        var transaction = await db.Database.BeginTransactionAsync(ct);
        try
        {
            // Let go of when the transaction has ended, which is after what it wrote can be seen.
            await using var begun = await Asking.RowsAsync(
                db,
                $"SELECT set_config('idle_in_transaction_session_timeout', '{LongestIdleInTurn}', true), pg_advisory_xact_lock({Lock(turn)}), "
                    + "clock_timestamp()",
                ct
            );
            await begun.Reader.ReadAsync(ct);
            db.TurnBegan = new DateTimeOffset(begun.Reader.GetDateTime(2), TimeSpan.Zero);
            return transaction;
        }
        catch
        {
            await transaction.DisposeAsync(); // nobody else has it
            throw;
        }
    }

    public override bool CanEmptyTables => true;

    public override bool HasOthers => true;

    public override Task<long> RoomForAsync(NailcrowDb db, long ticket, CancellationToken ct) =>
        JournalParts.RoomForAsync(db, ticket, JournalGuards.OfTable(db, "journal").Select(OnEachPart), ct);

    public override Task<DateTimeOffset> RoomForIntakeAsync(NailcrowDb db, CancellationToken ct) => IntakeParts.RoomForAsync(db, ct);

    public override Task<int> TrimIntakeAsync(NailcrowDb db, DateTimeOffset before, IEnumerable<string> over, CancellationToken ct) =>
        IntakeParts.TrimAsync(db, before, over, ct);

    public override async Task<IReadOnlyDictionary<string, string>> GuardsAsync(NailcrowDb db, CancellationToken ct)
    {
        await using var rows = await Asking.RowsAsync(
            db,
            """
            WITH one AS (SELECT c.oid, coalesce(w.relname, c.relname)::text AS name FROM pg_class c
              LEFT JOIN pg_inherits i ON i.inhrelid = c.oid LEFT JOIN pg_class w ON w.oid = i.inhparent
              WHERE c.relkind IN ('r', 'p') AND c.relnamespace = current_schema()::regnamespace)
            SELECT t.tgname::text, one.name, t.tgtype::int, t.tgenabled::text, p.prosrc,
              count(*) = (SELECT count(*) FROM one AS part WHERE part.name = one.name)
            FROM pg_trigger t JOIN one ON one.oid = t.tgrelid JOIN pg_proc p ON p.oid = t.tgfoid
            WHERE NOT t.tgisinternal GROUP BY 1, 2, 3, 4, 5
            """,
            ct
        );
        var there = new Dictionary<string, string>();
        while (await rows.Reader.ReadAsync(ct))
            there[rows.Reader.GetString(0)] = rows.Reader.GetBoolean(5)
                ? Standing(rows.Reader.GetString(1), rows.Reader.GetInt32(2), rows.Reader.GetString(3), rows.Reader.GetString(4))
                : "not the same on all parts of its table";
        return there;
    }

    public override string Standing(JournalGuard guard) => Standing(guard.Table, Type(guard), Always, Source(guard));

    private static string Standing(string table, int type, string enabled, string source) =>
        string.Create(CultureInfo.InvariantCulture, $"{table} {type} {enabled} {source}");

    // Also where a session has replication's role, which otherwise switches triggers off. pg_trigger.tgenabled.
    private const string Always = "A";

    // pg_trigger.tgtype: ROW 1, BEFORE 2, DELETE 8, UPDATE 16, TRUNCATE 32.
    private static int Type(JournalGuard guard) =>
        guard.On switch
        {
            "DELETE" => 1 + 2 + 8,
            "UPDATE" => 1 + 2 + 16,
            _ => 2 + 32,
        };

    private static string Source(JournalGuard guard) =>
        guard.MayGo
            ? $"BEGIN IF EXISTS ({RemovedInTheJournal}) THEN RETURN OLD; END IF; RAISE EXCEPTION '{guard.Reason}'; END"
            : $"BEGIN RAISE EXCEPTION '{guard.Reason}'; END";

    // A text that is no JSON must not keep others from being looked at, so only texts of that kind are read.
    private const string RemovedInTheJournal =
        "SELECT 1 FROM journal WHERE ticket = OLD.ticket AND kind = 'picture-removed' "
        + "AND CASE WHEN kind = 'picture-removed' THEN text::json #>> '{body,photo}' END = OLD.id::text";

    public override IEnumerable<string> Setting(JournalGuard guard) =>
        [
            $"DROP TRIGGER IF EXISTS {guard.Name} ON {guard.Table}",
            $"CREATE OR REPLACE FUNCTION {guard.Name}() RETURNS trigger LANGUAGE plpgsql AS $guard${Source(guard)}$guard$",
            $"CREATE TRIGGER {guard.Name} BEFORE {guard.On} ON {guard.Table} "
                + $"FOR EACH {(guard.On == "TRUNCATE" ? "STATEMENT" : "ROW")} EXECUTE FUNCTION {guard.Name}()",
            $"ALTER TABLE {guard.Table} ENABLE ALWAYS TRIGGER {guard.Name}",
            OnEachPart(guard),
        ];

    /// <summary>A part has its table's guards of rows by itself, but not always on, and it can be emptied by its own name.</summary>
    private static string OnEachPart(JournalGuard guard) =>
        $"""
            DO $do$ DECLARE part regclass; BEGIN
              FOR part IN SELECT inhrelid::regclass FROM pg_inherits WHERE inhparent = '{guard.Table}'::regclass LOOP
                {(guard.On == "TRUNCATE" ? SettingOnPart(guard) : "")}
                EXECUTE format('ALTER TABLE %s ENABLE ALWAYS TRIGGER {guard.Name}', part);
              END LOOP;
            END $do$
            """;

    private static string SettingOnPart(JournalGuard guard) =>
        $"""
            EXECUTE format('DROP TRIGGER IF EXISTS {guard.Name} ON %s', part);
            EXECUTE format('CREATE TRIGGER {guard.Name} BEFORE TRUNCATE ON %s FOR EACH STATEMENT EXECUTE FUNCTION {guard.Name}()', part);
            """;

    public override string Telling(Word word) => $"SELECT pg_notify('{OtherNodesNews.Channel}', '{word}')";

    public override async Task<bool> HoldsAsync(NailcrowDb db, Lease lease) =>
        await Asking.NumberAsync(db, $"SELECT turn FROM lease WHERE work = '{lease.Work}' FOR SHARE", CancellationToken.None) == lease.Turn;

    /// <summary>By a row's text, as the column is one that is only being added where nodes of 0.1.0 work.</summary>
    public override Task<string?> TooOldAsync(NailcrowDb db, CancellationToken ct) =>
        db
            .Database.SqlQuery<string>(
                $"""
                SELECT name || ' (' || (to_jsonb(n) ->> 'release') || ')' AS "Value" FROM node n
                WHERE seen_at > clock_timestamp() - interval '10 seconds'
                AND (to_jsonb(n) ->> 'tables') COLLATE "C" < {Release.TablesBefore}
                """
            )
            .FirstOrDefaultAsync(ct);

    /// <summary>Its own sequences give numbers that are never used; triggers of the first migration count rows.</summary>
    public override Task<long> EverGivenAsync(NailcrowDb db, string table, CancellationToken ct) =>
        Asking.NumberAsync(db, $"SELECT number FROM ever_given WHERE name = '{table}'", ct);

    /// <summary>By a column that the database makes of the four, with an index of groups of three characters (pg_trgm).</summary>
    public override IQueryable<TicketLineRow> HavingPart(NailcrowDb db, IQueryable<TicketLineRow> lines, string text, long number)
    {
        var part = AnyPart.Of(text.ToLowerInvariant());
        return lines.Where(l =>
            l.Number == number || EF.Functions.Like(EF.Property<string>(l, PostgresNailcrowDb.FoundBy), part, AnyPart.Escape)
        );
    }
}
