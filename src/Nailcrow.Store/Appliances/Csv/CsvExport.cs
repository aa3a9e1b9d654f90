using System.Globalization;
using System.Text.Json;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.Appliances.Csv;

/// <summary>Writes what can be imported, in the columns it is imported by.</summary>
public sealed class CsvExport(IDbContextFactory<NailcrowDb> dbs)
{
    public async Task WriteAsync(ImportKind kind, Stream into, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        using var time = db.TakesAllTheTimeItNeeds();
        var (needed, possible) = ImportColumns.Of(kind);
        // What a person typed may begin with = or @; a spreadsheet must show it, not run it.
        await using var csv = CsvWriter.Create(into, CsvWriterOptions.Default with { Injection = CsvInjection.Escape }, leaveOpen: true);
        await csv.WriteRecordAsync([.. needed, .. possible], ct);
        await foreach (var row in Rows(db, kind).WithCancellation(ct))
            await csv.WriteRecordAsync(row, ct);
    }

    private static IAsyncEnumerable<string[]> Rows(NailcrowDb db, ImportKind kind) =>
        kind switch
        {
            ImportKind.Customers => db.Customers.AsNoTracking().OrderBy(c => c.Name).AsAsyncEnumerable().Select(Customer),
            ImportKind.Sites => db.Sites.AsNoTracking().OrderBy(s => s.Name).AsAsyncEnumerable().Select(Site),
            ImportKind.Appliances => db.Appliances.AsNoTracking().OrderBy(a => a.Asset).AsAsyncEnumerable().Select(Appliance),
            ImportKind.Drives => db
                .Drives.AsNoTracking()
                .OrderBy(d => d.Serial)
                .AsAsyncEnumerable()
                .Select(d =>
                    new[]
                    {
                        d.Serial,
                        d.Model,
                        Text<long>(d.Bytes),
                        d.Asset ?? "",
                        d.Bay ?? "",
                        d.Depot ?? "",
                        Text(d.Hours),
                        d.UsedIn ?? "",
                    }
                ),
            ImportKind.Warranties => db
                .Warranties.AsNoTracking()
                .OrderBy(w => w.Id)
                .AsAsyncEnumerable()
                .Select(w => new[] { Text<DateOnly>(w.Until), w.Serial ?? "", w.Model ?? "", Text(w.From), w.Terms ?? "" }),
            _ => db
                .QualifiedModels.AsNoTracking()
                .OrderBy(q => q.ApplianceModel)
                .ThenBy(q => q.DriveModel)
                .AsAsyncEnumerable()
                .Select(q => new[] { q.ApplianceModel, q.DriveModel, q.NotBecause ?? "" }),
        };

    private static string[] Customer(CustomerRow row)
    {
        var customer = StoredJson.Parse(row.Body, JournalJson.Default.Customer);
        return
        [
            customer.Name,
            PeopleCell.Write(customer.People),
            Text(customer.RespondHours),
            Text(customer.RestoreHours),
            Words.Of(customer.Data),
            customer.DataNote ?? "",
            customer.Spares ?? "",
            Text(customer.PicturesKeptMonths),
        ];
    }

    private static string[] Site(SiteRow row)
    {
        var site =
            JsonSerializer.Deserialize(row.Body, JournalJson.Default.Site) ?? throw new InvalidDataException($"Site {row.Name} is null.");
        return
        [
            site.Name,
            site.Customer,
            site.Address,
            site.Zone,
            site.Access ?? "",
            site.Hours ?? "",
            string.Join(' ', (site.Holidays ?? []).Select(d => d.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture))),
            Text(site.RespondHours),
            Text(site.RestoreHours),
            Text(site.Latitude),
            Text(site.Longitude),
        ];
    }

    private static string[] Appliance(ApplianceRow row) =>
        [
            row.Asset,
            row.Serial,
            row.Model,
            row.Site,
            row.Location,
            row.Address ?? "",
            row.SendsAs ?? "",
            ArrayCell.Write(JsonSerializer.Deserialize(row.Arrays, JournalJson.Default.ArrayDesignArray)),
            ExpansionCell.Write(
                row.Expansions is null ? null : JsonSerializer.Deserialize(row.Expansions, JournalJson.Default.ExpansionArray)
            ),
        ];

    private static string Text<T>(T? value)
        where T : struct, IFormattable => value?.ToString(value is DateOnly ? "O" : null, CultureInfo.InvariantCulture) ?? "";
}
