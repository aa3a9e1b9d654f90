using System.Text.Json;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Returns;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Store.Appliances.Csv;

/// <summary>A row that cannot be used.</summary>
public sealed record BadRow(long Line, string Reason);

/// <summary>What an import did, or would do.</summary>
public sealed record Imported(long Rows, long Good, long Written, long Bad, IReadOnlyList<BadRow> Problems);

/// <summary>
/// Brings in files of any length within little memory: a first pass reads and checks every row, a second writes, and of drives a third
/// tells the ledger what came. Rows that are there already are replaced.
/// </summary>
public sealed class CsvImport(IDbContextFactory<NailcrowDb> dbs, TicketJournal journal, TimeProvider time)
{
    private const int MostTold = 200;

    // As many as hold others up for some tenths of a second at most.
    private const int InOneTurn = 1_000;
    private const int ToldInOneTurn = 200;

    // Whoever waits at a file's lock looks again after some milliseconds. Who has it takes it anew only after that.
    private static readonly TimeSpan Breath = TimeSpan.FromMilliseconds(10);

    /// <param name="dryRun">Checks and writes nothing.</param>
    /// <param name="allOrNothing">One bad row, and nothing is written; else the good rows are. All are written in one transaction.</param>
    /// <exception cref="CsvProblem">The file as a whole cannot be read; nothing was written.</exception>
    public async Task<Imported> RunAsync(ImportKind kind, string file, bool dryRun, bool allOrNothing, string by, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var known = await KnownAsync(db, kind, ct);
        var found = await PassAsync(kind, file, known, _ => Task.CompletedTask, ct);
        if (dryRun || found.Good == 0 || (allOrNothing && found.Bad > 0))
            return found;
        if (allOrNothing)
            await WriteTogetherAsync(db, kind, file, known, by, ct);
        else
        {
            await InPiecesAsync(kind, file, known, some => WriteAsync(db, some, by), ct);
            await WhenFreeAsync(db, into => EndAsync(into, kind));
        }
        db.ReferenceChanges.Add(
            new()
            {
                At = time.GetUtcNow(),
                By = by,
                Kind = "import",
                Key = Words.Of(kind),
                After = $"{found.Good} rows",
            }
        );
        await db.SaveChangesAsync(ct);
        return found with { Written = found.Good };
    }

    private async Task WriteTogetherAsync(NailcrowDb db, ImportKind kind, string file, ImportKnown known, string by, CancellationToken ct)
    {
        await WhenFreeAsync(
            db,
            async into =>
            {
                await PassAsync(kind, file, known, into.KeepAsync, ct);
                await EndAsync(into, kind);
            }
        );
        if (kind == ImportKind.Drives) // to its end, whoever has gone meanwhile: they are on the list
            await InPiecesAsync(kind, file, known, some => TellLedgerAsync(some, by), CancellationToken.None);
    }

    /// <summary>Whoever asked may go between two pieces, and not within one: what is on the list is told to the ledger.</summary>
    private async Task WriteAsync(NailcrowDb db, IReadOnlyList<object> rows, string by)
    {
        await WhenFreeAsync(db, into => into.KeepAllAsync(rows));
        await TellLedgerAsync(rows, by);
    }

    /// <summary>
    /// A list says what came; where a part is that the ledger knows, the ledger says. Told in the writers' turn, as all that is told to it: a
    /// seal covers so many of its lines in their order, and none comes in between afterwards.
    /// </summary>
    private async Task TellLedgerAsync(IReadOnlyList<object> rows, string by)
    {
        foreach (var some in rows.OfType<DriveRow>().Where(d => d.Depot is not null).Chunk(ToldInOneTurn))
        {
            await journal.AloneAsync(connection => StockList.TellAsync(connection.Pen, some, by, time.GetUtcNow()), CancellationToken.None);
            await Task.Delay(Breath);
        }
    }

    private static Task EndAsync(ImportWriter into, ImportKind kind) =>
        kind == ImportKind.Sites ? into.AddCustomersOfSitesAsync() : Task.CompletedTask;

    /// <summary>
    /// In a transaction of its own. A file has one lock, and whoever waits at it while somebody takes it again and again waits for ever: there
    /// the journal's writer does it, in its turn with all who have something to write. On a server only those wait who want the same rows.
    /// </summary>
    private async Task WhenFreeAsync(NailcrowDb own, Func<ImportWriter, Task> write)
    {
        if (!own.Product.HasOthers)
        {
            await journal.AloneAsync(connection => WriteAsync(connection.Db), CancellationToken.None);
            return;
        }
        await using var transaction = await own.Database.BeginTransactionAsync();
        await WriteAsync(own);
        await transaction.CommitAsync();

        async Task WriteAsync(NailcrowDb db)
        {
            var into = new ImportWriter(db);
            await write(into);
            await into.EndAsync();
        }
    }

    private async Task InPiecesAsync(
        ImportKind kind,
        string file,
        ImportKnown known,
        Func<IReadOnlyList<object>, Task> use,
        CancellationToken ct
    )
    {
        var waiting = new List<object>();
        await PassAsync(kind, file, known, TakeAsync, ct);
        await use(waiting);

        async Task TakeAsync(object row)
        {
            waiting.Add(row);
            if (waiting.Count < InOneTurn)
                return;
            await use(waiting);
            waiting = [];
            await Task.Delay(Breath, ct);
        }
    }

    private async Task<Imported> PassAsync(ImportKind kind, string file, ImportKnown known, Func<object, Task> use, CancellationToken ct)
    {
        var (needed, possible) = ImportColumns.Of(kind);
        using var table = CsvTable.Open(file, needed, possible);
        var (rows, good, bad) = (0L, 0L, 0L);
        var problems = new List<BadRow>();
        var seen = new HashSet<ulong>();
        while (true)
        {
            try
            {
                if (!table.Read())
                    break;
            }
            catch (CsvFormatException e)
            {
                // A quote that was never closed takes the rest of the file with it; no row after it can be trusted.
                throw new CsvProblem($"Line {table.Line}: {e.Message} Nothing after it can be read.");
            }
            ct.ThrowIfCancellationRequested();
            rows++;
            try
            {
                var row = Row(kind, table, known);
                if (!seen.Add(Hash(Key(row))))
                    throw new CsvProblem($"{Key(row)} is in this file already; each is there once.");
                good++;
                await use(row);
            }
            catch (CsvProblem no)
            {
                bad++;
                if (problems.Count < MostTold)
                    problems.Add(new(table.Line, no.Message));
            }
        }
        return new(rows, good, 0, bad, problems);
    }

    private object Row(ImportKind kind, CsvTable table, ImportKnown known) =>
        kind switch
        {
            ImportKind.Customers => ImportRows.Customer(table),
            ImportKind.Sites => ImportRows.Site(table),
            ImportKind.Appliances => ImportRows.Appliance(table, known),
            ImportKind.Drives => ImportRows.Drive(table, known),
            ImportKind.Warranties => ImportRows.Warranty(table, time.GetUtcNow()),
            _ => ImportRows.Qualified(table, known),
        };

    private static string Key(object row) =>
        row switch
        {
            CustomerRow customer => customer.Name,
            SiteRow site => site.Name,
            ApplianceRow appliance => appliance.Asset,
            DriveRow drive => drive.Serial,
            WarrantyRow warranty => warranty.Id,
            _ => $"{((QualifiedRow)row).ApplianceModel}, {((QualifiedRow)row).DriveModel}",
        };

    /// <summary>
    /// FNV-1a, 64 bits: two million keys as 16 MB of numbers instead of 200 MB of text. Two keys with one hash are one chance in
    /// ten million.
    /// </summary>
    private static ulong Hash(string key)
    {
        var hash = 14_695_981_039_346_656_037UL;
        foreach (var c in key)
            hash = (hash ^ c) * 1_099_511_628_211UL;
        return hash;
    }

    private static async Task<ImportKnown> KnownAsync(NailcrowDb db, ImportKind kind, CancellationToken ct)
    {
        var sites = await db.Sites.Select(s => s.Name).ToHashSetAsync(ct);
        var models = (await db.Models.AsNoTracking().ToListAsync(ct)).ToDictionary(
            m => m.Id,
            m =>
                JsonSerializer.Deserialize(m.Body, JournalJson.Default.ApplianceModel)
                ?? throw new InvalidDataException($"Model {m.Id} is null.")
        );
        var versions =
            kind == ImportKind.Appliances
                ? await db.Appliances.Select(a => new { a.Asset, a.Version }).ToDictionaryAsync(a => a.Asset, a => a.Version, ct)
                : [];
        var assets = kind == ImportKind.Drives ? await db.Appliances.Select(a => a.Asset).ToHashSetAsync(ct) : [];
        var people = kind == ImportKind.Drives ? await db.Users.AsNoTracking().ToListAsync(ct) : [];
        var engineers = people.Where(p => p.IsEngineer()).Select(p => p.Name).ToList();
        return new(sites, models, assets, engineers, versions);
    }
}
