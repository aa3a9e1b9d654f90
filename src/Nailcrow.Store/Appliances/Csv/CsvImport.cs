using System.Text.Json;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Returns;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Appliances.Csv;

/// <summary>A row that cannot be used.</summary>
public sealed record BadRow(long Line, string Reason);

/// <summary>What an import did, or would do.</summary>
public sealed record Imported(long Rows, long Good, long Written, long Bad, IReadOnlyList<BadRow> Problems);

/// <summary>
/// Brings in files of any length within little memory: a first pass reads and checks every row, a second writes. Rows
/// that are there already are replaced.
/// </summary>
public sealed class CsvImport(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    private const int MostTold = 200;

    // Other writers get their turn between two of these.
    private const int InOneTransaction = 5_000;

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
        await WriteAsync(db, kind, file, known, allOrNothing, by, ct);
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

    private async Task WriteAsync(
        NailcrowDb db,
        ImportKind kind,
        string file,
        ImportKnown known,
        bool together,
        string by,
        CancellationToken ct
    )
    {
        var (customers, sites, appliances, drives, qualified, warranties) = (
            new PreparedRows<CustomerRow>(db),
            new PreparedRows<SiteRow>(db),
            new PreparedRows<ApplianceRow>(db),
            new PreparedRows<DriveRow>(db),
            new List<QualifiedRow>(),
            new PreparedRows<WarrantyRow>(db)
        );
        var pen = new LedgerPen(db, new(db), new(db));
        await db.Database.OpenConnectionAsync(ct);
        var transaction = await db.Database.BeginTransactionAsync(ct);
        var inThis = 0;
        try
        {
            await PassAsync(kind, file, known, KeepAsync, ct);
            await AddQualifiedAsync(db, qualified, ct);
            if (kind == ImportKind.Sites)
                await AddCustomersOfSitesAsync(db, ct);
            await transaction.CommitAsync(ct);
        }
        finally
        {
            await transaction.DisposeAsync();
        }

        async Task KeepAsync(object row)
        {
            await (
                row switch
                {
                    CustomerRow customer => customers.UpsertAsync(customer),
                    SiteRow site => sites.UpsertAsync(site),
                    ApplianceRow appliance => appliances.UpsertAsync(appliance),
                    DriveRow drive => KeepDriveAsync(drive),
                    WarrantyRow warranty => warranties.UpsertAsync(warranty),
                    _ => Keep((QualifiedRow)row),
                }
            );
            if (!together && ++inThis == InOneTransaction)
            {
                await transaction.CommitAsync(ct);
                await transaction.DisposeAsync();
                (transaction, inThis) = (await db.Database.BeginTransactionAsync(ct), 0);
            }
        }

        // A list says what came. Where a part is that the ledger knows, the ledger says.
        async Task KeepDriveAsync(DriveRow drive)
        {
            await drives.UpsertAsync(drive);
            if (drive.Depot is not null && (await pen.LineAsync(drive.Serial)).Last is null)
                await pen.WriteAsync([StockList.Came(drive, time.GetUtcNow(), by)], null, time.GetUtcNow());
        }

        Task Keep(QualifiedRow row)
        {
            qualified.Add(row);
            return Task.CompletedTask;
        }
    }

    /// <summary>Whoever owns a site is a customer, if nothing else is known of them yet.</summary>
    private static async Task AddCustomersOfSitesAsync(NailcrowDb db, CancellationToken ct)
    {
        var named = await db.Sites.Select(s => s.Customer).Distinct().Where(name => !db.Customers.Any(c => c.Name == name)).ToListAsync(ct);
        db.Customers.AddRange(
            named.Select(name => new CustomerRow { Name = name, Body = StoredJson.Text(new(name), JournalJson.Default.Customer) })
        );
        await db.SaveChangesAsync(ct);
    }

    private static async Task AddQualifiedAsync(NailcrowDb db, List<QualifiedRow> rows, CancellationToken ct)
    {
        var there = (await db.QualifiedModels.AsNoTracking().ToListAsync(ct)).Select(r => (r.ApplianceModel, r.DriveModel)).ToHashSet();
        foreach (var row in rows.GroupBy(r => (r.ApplianceModel, r.DriveModel)).Select(same => same.Last()))
            if (!there.Contains((row.ApplianceModel, row.DriveModel)))
                db.QualifiedModels.Add(row);
            else if (row.NotBecause is not null) // a list without that column changes nothing of it
                db.QualifiedModels.Update(row);
        await db.SaveChangesAsync(ct);
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
        return new(sites, models, assets, versions);
    }
}
