using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Store.Returns;

/// <summary>Drive models, and where each is qualified.</summary>
public sealed class DriveModels(IDbContextFactory<NailcrowDb> dbs)
{
    public async Task<IReadOnlyList<DriveModel>> AllAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return
        [
            .. (await db.DriveModels.AsNoTracking().OrderBy(r => r.Id).ToListAsync(ct)).Select(r =>
                StoredJson.Parse(r.Body, JournalJson.Default.DriveModel)
            ),
        ];
    }

    /// <summary>What is said of drive models in an appliance model: that they work, or why not.</summary>
    public async Task<IReadOnlyList<Qualified>> KnownInAsync(string applianceModel, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db
            .QualifiedModels.Where(q => q.ApplianceModel == applianceModel)
            .Select(q => new Qualified(q.ApplianceModel, q.DriveModel, q.NotBecause == "" ? null : q.NotBecause))
            .ToListAsync(ct);
    }
}
