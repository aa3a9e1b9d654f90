using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Returns;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Appliances.Csv;

/// <summary>Keeps rows of a list, each in place of the one that has its key, in whatever transaction is open.</summary>
internal sealed class ImportWriter(NailcrowDb db)
{
    private readonly PreparedRows<CustomerRow> _customers = new(db);
    private readonly PreparedRows<SiteRow> _sites = new(db);
    private readonly PreparedRows<ApplianceRow> _appliances = new(db);
    private readonly PreparedRows<DriveRow> _drives = new(db);
    private readonly PreparedRows<WarrantyRow> _warranties = new(db);
    private readonly List<QualifiedRow> _qualified = [];

    public Task KeepAsync(object row)
    {
        switch (row)
        {
            case CustomerRow customer:
                return _customers.UpsertAsync(customer);
            case SiteRow site:
                return _sites.UpsertAsync(site);
            case ApplianceRow appliance:
                return _appliances.UpsertAsync(appliance);
            case DriveRow drive:
                return _drives.UpsertAsync(drive);
            case WarrantyRow warranty:
                return _warranties.UpsertAsync(warranty);
            default:
                _qualified.Add((QualifiedRow)row);
                return Task.CompletedTask;
        }
    }

    public async Task KeepAllAsync(IEnumerable<object> rows)
    {
        foreach (var row in rows)
            await KeepAsync(row);
    }

    /// <summary>What is only written once all of it is here.</summary>
    public async Task EndAsync()
    {
        if (_qualified.Count == 0)
            return;
        var there = (await db.QualifiedModels.AsNoTracking().ToListAsync()).Select(r => (r.ApplianceModel, r.DriveModel)).ToHashSet();
        foreach (var row in _qualified.GroupBy(r => (r.ApplianceModel, r.DriveModel)).Select(same => same.Last()))
            if (!there.Contains((row.ApplianceModel, row.DriveModel)))
                db.QualifiedModels.Add(row);
            else if (row.NotBecause is not null) // a list without that column changes nothing of it
                db.QualifiedModels.Update(row);
        await db.SaveChangesAsync();
    }

    /// <summary>Whoever owns a site is a customer, if nothing else is known of them yet.</summary>
    public async Task AddCustomersOfSitesAsync()
    {
        var named = await db.Sites.Select(s => s.Customer).Distinct().Where(name => !db.Customers.Any(c => c.Name == name)).ToListAsync();
        db.Customers.AddRange(
            named.Select(name => new CustomerRow { Name = name, Body = StoredJson.Text(new(name), JournalJson.Default.Customer) })
        );
        await db.SaveChangesAsync();
    }
}
