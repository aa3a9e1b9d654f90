using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Appliances;

/// <summary>An appliance with its site, its customer and its model, and the version an edit has to name.</summary>
/// <param name="Drawing">Its enclosures as one stands before them.</param>
public sealed record KnownAppliance(
    Appliance Appliance,
    Site Site,
    Customer Customer,
    ApplianceModel Model,
    IReadOnlyList<ChassisDrawing> Drawing,
    long Version
)
{
    /// <summary>Of all its bays, as they are printed.</summary>
    public IEnumerable<string> Labels => Drawing.SelectMany(d => d.Labels());
}

/// <summary>A customer, and the version an edit has to name.</summary>
public sealed record KnownCustomer(Customer Customer, string Version);

/// <summary>Models, customers, sites and appliances, as they stand now.</summary>
public sealed class ReferenceBook(IDbContextFactory<NailcrowDb> dbs)
{
    public async Task<KnownAppliance?> FindAsync(string asset, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        if (await One(db, asset.Trim().ToUpperInvariant()) is not { } found)
            return null;
        var appliance = Of(found.Row);
        var models = new Dictionary<string, ApplianceModel>
        {
            [appliance.Model] = StoredJson.Parse(found.Model, JournalJson.Default.ApplianceModel),
        };
        if (appliance.Expansions is { Count: > 0 } expansions)
            foreach (var (id, model) in await ModelsAsync(db, [.. expansions.Select(e => e.Model)], ct))
                models[id] = model;
        return Known(
            appliance,
            found.Row.Version,
            StoredJson.Parse(found.Site, JournalJson.Default.Site),
            found.Customer is { } customer ? StoredJson.Parse(customer, JournalJson.Default.Customer) : null,
            models
        );
    }

    private sealed record OneRow(ApplianceRow Row, string Site, string? Customer, string Model);

    // Compiled once, and one question: each look at a ticket asks it.
    private static readonly Func<NailcrowDb, string, Task<OneRow?>> One = EF.CompileAsyncQuery(
        (NailcrowDb db, string asset) =>
            (
                from a in db.Appliances.AsNoTracking()
                where a.Asset == asset
                join s in db.Sites on a.Site equals s.Name
                join m in db.Models on a.Model equals m.Id
                join c in db.Customers on s.Customer equals c.Name into customers
                from c in customers.DefaultIfEmpty()
                select new OneRow(a, s.Body, c.Body, m.Body)
            ).FirstOrDefault()
    );

    public async Task<ApplianceModel?> ModelAsync(string id, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Models.FindAsync([id], ct) is { } row
            ? JsonSerializer.Deserialize(row.Body, JournalJson.Default.ApplianceModel)
            : null;
    }

    public async Task<IReadOnlyList<ApplianceModel>> ModelsAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return
        [
            .. (await db.Models.AsNoTracking().OrderBy(m => m.Id).ToListAsync(ct))
                .Select(r => JsonSerializer.Deserialize(r.Body, JournalJson.Default.ApplianceModel))
                .OfType<ApplianceModel>(),
        ];
    }

    /// <summary>Appliances in order of asset number, after a given one.</summary>
    /// <param name="find">Any part of an asset number, a chassis' serial, a model, a site or a place in it; null for all.</param>
    public async Task<IReadOnlyList<KnownAppliance>> ListAsync(string? after, string? find, int limit, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var wanted = db.Appliances.Where(a => after == null || string.Compare(a.Asset, after) > 0);
        if (find is not null)
        {
            var part = AnyPart.Of(find);
            wanted = wanted.Where(a =>
                EF.Functions.Like(a.Asset, part, AnyPart.Escape)
                || EF.Functions.Like(a.Serial, part, AnyPart.Escape)
                || EF.Functions.Like(a.Model, part, AnyPart.Escape)
                || EF.Functions.Like(a.Site, part, AnyPart.Escape)
                || EF.Functions.Like(a.Location, part, AnyPart.Escape)
            );
        }
        return await WithRestAsync(db, wanted.OrderBy(a => a.Asset).Take(limit), ct);
    }

    public async Task<IReadOnlyDictionary<string, Site>> SitesAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Sites.AsNoTracking().ToDictionaryAsync(s => s.Name, s => StoredJson.Parse(s.Body, JournalJson.Default.Site), ct);
    }

    /// <summary>Those of these names that are sites.</summary>
    public async Task<IReadOnlyList<Site>> SitesAsync(IReadOnlyCollection<string> names, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return
        [
            .. (await db.Sites.AsNoTracking().Where(s => names.Contains(s.Name)).ToListAsync(ct)).Select(s =>
                StoredJson.Parse(s.Body, JournalJson.Default.Site)
            ),
        ];
    }

    /// <summary>Customers by name, after a given one.</summary>
    /// <param name="find">Any part of a name; null for all.</param>
    public async Task<IReadOnlyList<KnownCustomer>> CustomersAsync(string? after, string? find, int limit, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var wanted = db.Customers.AsNoTracking().Where(c => after == null || string.Compare(c.Name, after) > 0);
        if (find is not null)
            wanted = wanted.Where(c => EF.Functions.Like(c.Name, AnyPart.Of(find), AnyPart.Escape));
        return [.. (await wanted.OrderBy(c => c.Name).Take(limit).ToListAsync(ct)).Select(Known)];
    }

    /// <summary>One customer with the names of its sites; null where nobody is called that.</summary>
    public async Task<(KnownCustomer Customer, IReadOnlyList<string> Sites, int Machines)?> CustomerAsync(string name, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        if (await db.Customers.FindAsync([name], ct) is not { } row)
            return null;
        var sites = db.Sites.Where(s => s.Customer == name).Select(s => s.Name);
        return (Known(row), await sites.OrderBy(s => s).ToListAsync(ct), await db.Appliances.CountAsync(a => sites.Contains(a.Site), ct));
    }

    private static KnownCustomer Known(CustomerRow row) => new(StoredJson.Parse(row.Body, JournalJson.Default.Customer), row.Version);

    private static async Task<IReadOnlyDictionary<string, Customer>> OfSitesAsync(
        NailcrowDb db,
        IEnumerable<Site> sites,
        CancellationToken ct
    )
    {
        var names = sites.Select(s => s.Customer).Distinct().ToList();
        return await db
            .Customers.AsNoTracking()
            .Where(c => names.Contains(c.Name))
            .ToDictionaryAsync(c => c.Name, c => StoredJson.Parse(c.Body, JournalJson.Default.Customer), ct);
    }

    /// <summary>With their sites, customers and models, in four questions however many they are.</summary>
    private static async Task<IReadOnlyList<KnownAppliance>> WithRestAsync(
        NailcrowDb db,
        IQueryable<ApplianceRow> wanted,
        CancellationToken ct
    )
    {
        var rows = await wanted.AsNoTracking().ToListAsync(ct);
        var appliances = rows.Select(Of).ToList();
        var siteNames = rows.Select(r => r.Site).Distinct().ToList();
        var modelIds = appliances.SelectMany(a => (a.Expansions ?? []).Select(e => e.Model).Prepend(a.Model)).Distinct().ToList();
        var sites = await db
            .Sites.AsNoTracking()
            .Where(s => siteNames.Contains(s.Name))
            .ToDictionaryAsync(s => s.Name, s => StoredJson.Parse(s.Body, JournalJson.Default.Site), ct);
        var models = await ModelsAsync(db, modelIds, ct);
        var customers = await OfSitesAsync(db, sites.Values, ct);
        return
        [
            .. appliances.Zip(
                rows,
                (a, r) => Known(a, r.Version, sites[a.Site], customers.GetValueOrDefault(sites[a.Site].Customer), models)
            ),
        ];
    }

    private static Task<Dictionary<string, ApplianceModel>> ModelsAsync(NailcrowDb db, IReadOnlyList<string> ids, CancellationToken ct) =>
        db
            .Models.AsNoTracking()
            .Where(m => ids.Contains(m.Id))
            .ToDictionaryAsync(m => m.Id, m => StoredJson.Parse(m.Body, JournalJson.Default.ApplianceModel), ct);

    private static KnownAppliance Known(
        Appliance appliance,
        long version,
        Site site,
        Customer? customer,
        IReadOnlyDictionary<string, ApplianceModel> models
    ) =>
        new(
            appliance,
            site,
            customer ?? new(site.Customer),
            models[appliance.Model],
            [
                ChassisDrawing.Of(models[appliance.Model]),
                .. (appliance.Expansions ?? []).Select(e => ChassisDrawing.Of(models[e.Model], e.Name)),
            ],
            version
        );

    internal static Appliance Of(ApplianceRow row) =>
        new(
            row.Asset,
            row.Serial,
            row.Model,
            row.Site,
            row.Location,
            row.Address,
            StoredJson.Parse(row.Arrays, JournalJson.Default.ArrayDesignArray),
            row.Expansions is null ? null : StoredJson.Parse(row.Expansions, JournalJson.Default.ExpansionArray),
            row.SendsAs
        );
}
