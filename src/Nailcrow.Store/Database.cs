using System.Data.Common;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Nailcrow.Store.Moving;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.Products;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Tickets.Journal;

namespace Nailcrow.Store;

/// <summary>The database as a whole: brought up to date at start, asked whether it answers, copied while in use.</summary>
public sealed class Database(IDbContextFactory<NailcrowDb> dbs, TimeProvider clock, DatabaseFile? file = null)
{
    /// <summary>Brings the tables to today's form, and puts back what guards the journal.</summary>
    /// <returns>The guards that somebody had taken away.</returns>
    /// <exception cref="RecordElsewhereException">The record is not here, or only a part of it.</exception>
    /// <exception cref="OtherReleaseException">It was brought to a form that this release does not know, or is worked on by a node that is too old.</exception>
    public async Task<IReadOnlyList<string>> MigrateAsync(CancellationToken ct)
    {
        var missing = await BringUpToDateAsync(ct);
        await IsHereAsync(ct);
        return missing;
    }

    /// <exception cref="RecordElsewhereException">The record is not here, or only a part of it.</exception>
    public async Task IsHereAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        if (await Asking.NumberAsync(db, "SELECT count(*) FROM record_place", ct) == 0)
            return; // nearly every start: nothing is compiled for the question
        if (await db.Set<RecordPlaceRow>().AsNoTracking().SingleOrDefaultAsync(ct) is { } mark)
            throw new RecordElsewhereException(WhyNotHere(mark, file is null ? "This database" : Path.GetFullPath(file.Path)));
    }

    internal static string WhyNotHere(RecordPlaceRow mark, string place) =>
        mark.Why == NotHere.Left
            ? $"The record of {place} was moved to {mark.Place} on {mark.At:yyyy-MM-dd} at {mark.At:HH:mm} UTC, and is written there. Start the "
                + "service on that, or move it from there to a place where nothing is; where it is lost, 'nailcrow-service move --forget' makes this "
                + "one the record again, with nothing of what was written there."
            : $"{place} is being filled from {mark.Place} since {mark.At:yyyy-MM-dd HH:mm} UTC and is not whole: say 'nailcrow-service move' from there "
                + "again, which goes on where it stood, or give it an empty one.";

    /// <summary>The same as <see cref="MigrateAsync"/> wherever the record is.</summary>
    internal async Task<IReadOnlyList<string>> BringUpToDateAsync(CancellationToken ct)
    {
        if (file is not null)
            OwnFiles.Keep(file.Path); // an empty file is an empty database, and one that is there gets its rights back
        await using var db = await dbs.CreateDbContextAsync(ct);
        using var time = db.TakesAllTheTimeItNeeds(); // an index over years of entries, or a lock that others have
        await using var turn = await db.Product.TurnAsync(db, WritersTurn.Tables, ct);
        var applied = await AppliedAsync(db, ct);
        var known = db.Database.GetMigrations().ToList();
        if (applied.Count > 0 && !applied.Contains(known[0]))
            throw new OtherReleaseException(
                $"This record was last worked on by a release older than {Release.Before} (its tables are as of {applied[^1]}). Start "
                    + $"{Release.Before} on it once, which brings it to a form that {Release.Version} goes on from; nothing was changed here."
            );
        if (Newer(applied, known) is { Count: > 0 } newer)
            return WorkedOnByNewer(newer); // all of it was brought up to date by that release, its guards too
        var isNew = known.Except(applied).Any();
        if (isNew)
        {
            if (applied.Count > 0 && await db.Product.TooOldAsync(db, ct) is { } older)
                throw new OtherReleaseException(
                    $"{older} still works on this record, which is older than {Release.Before}. Upgrade all nodes to {Release.Before} first, then to "
                        + $"{Release.Version}: a release runs beside the one before it and no other."
                );
            // To the last by its name: else the model is built as for its design, to see whether it has changes that no migration has. That
            // takes a second of each first start, and a test has seen to it.
            // Where others work on it meanwhile each by itself: one change that holds a table while another waits for its own could have both
            // wait for each other.
            var steps = applied.Count > 0 && db.Product.HasOthers ? known.Except(applied) : [known[^1]];
            foreach (var step in steps)
                await db.GetService<IMigrator>().MigrateAsync(step, ct);
            await db.Product.MadeAsync(db, ct);
        }
        await StockList.TakeOverAsync(db, clock.GetUtcNow(), ct);
        var missing = await JournalGuards.PutBackAsync(db, ct);
        return isNew ? [] : missing;
    }

    /// <summary>What nodes that start together would each make is made by the first of them.</summary>
    public async Task OneByOneAsync(Func<Task> make, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var turn = await db.Product.TurnAsync(db, WritersTurn.Tables, ct);
        await make();
    }

    public async Task<bool> AnswersAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Database.CanConnectAsync(ct);
    }

    /// <summary>Whether it is one file that is copied while it is in use; a server is backed up with its own tools.</summary>
    public bool IsFile => file is not null;

    /// <summary>A copy as of one moment, made while others read and write.</summary>
    /// <exception cref="NotSupportedException">The database is not SQLite; use its own tools.</exception>
    public async Task BackupAsync(string toFile, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        if (db.Database.GetDbConnection() is not SqliteConnection from)
            throw new NotSupportedException("Only a SQLite file is copied this way; back a database server up with its own tools.");
        await from.OpenAsync(ct);
        await using var to = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = toFile, Pooling = false }.ToString());
        await to.OpenAsync(ct);
        from.BackupDatabase(to);
    }

    /// <summary>A newer release only adds what this one does not use, until one takes away.</summary>
    private static IReadOnlyList<string> WorkedOnByNewer(IReadOnlyList<string> changes) =>
        changes.FirstOrDefault(Release.IsTakenAwayBy) is { } gone
            ? throw new OtherReleaseException(
                $"A newer release has worked on this record, and took away what {Release.Version} needs ({gone}). Start that release, or a newer one."
            )
            : [];

    /// <summary>Most starts find nothing to do; asking the history table alone spares them half a second of building models.</summary>
    private static async Task<IReadOnlyList<string>> AppliedAsync(NailcrowDb db, CancellationToken ct)
    {
        await db.Database.OpenConnectionAsync(ct); // one that cannot be opened is no new one
        var applied = new List<string>();
        try
        {
            await using var rows = await Asking.RowsAsync(
                db,
                "SELECT migration_id FROM \"__EFMigrationsHistory\" ORDER BY migration_id",
                ct
            );
            while (await rows.Reader.ReadAsync(ct))
                applied.Add(rows.Reader.GetString(0));
            return applied;
        }
        catch (DbException)
        {
            return []; // a new file has no history yet
        }
    }

    /// <summary>Changes that only a newer release knows. What came before the first that is known is in that one.</summary>
    private static List<string> Newer(IEnumerable<string> applied, IReadOnlyList<string> known) =>
        [.. applied.Except(known).Where(change => string.CompareOrdinal(change, known[0]) > 0)];

    /// <summary>Whether its tables are exactly those that this release knows.</summary>
    internal static async Task<bool> IsUpToDateAsync(NailcrowDb db, CancellationToken ct)
    {
        var (applied, known) = (await AppliedAsync(db, ct), db.Database.GetMigrations().ToList());
        return !known.Except(applied).Any() && Newer(applied, known).Count == 0;
    }
}
