using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Store.Appliances;

/// <summary>An appliance with its site and model, and the version an edit has to name.</summary>
/// <param name="Drawing">Its enclosures as one stands before them.</param>
public sealed record KnownAppliance(
    Appliance Appliance,
    Site Site,
    ApplianceModel Model,
    IReadOnlyList<ChassisDrawing> Drawing,
    long Version
);

/// <summary>Models, sites and appliances, with a log of every change.</summary>
public sealed class ReferenceBook(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    public async Task<KnownAppliance?> FindAsync(string asset, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var key = asset.Trim().ToUpperInvariant();
        return (await WithRestAsync(db, db.Appliances.Where(a => a.Asset == key), ct)).FirstOrDefault();
    }

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
    public async Task<IReadOnlyList<KnownAppliance>> ListAsync(string? after, int limit, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await WithRestAsync(
            db,
            db.Appliances.Where(a => after == null || string.Compare(a.Asset, after) > 0).OrderBy(a => a.Asset).Take(limit),
            ct
        );
    }

    /// <summary>Adds or replaces all that is given, or nothing: every problem is told, each as a sentence.</summary>
    public async Task<IReadOnlyList<string>> LoadAsync(ReferenceData data, string by, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var models = await db.Models.Select(m => m.Id).ToHashSetAsync(ct);
        var sites = await db.Sites.Select(s => s.Name).ToHashSetAsync(ct);
        if (data.Problems(models, sites).ToList() is { Count: > 0 } problems)
            return problems;
        foreach (var model in data.Models)
            await PutModelAsync(db, model, by, ct);
        foreach (var site in data.Sites)
            await PutSiteAsync(db, site, by, ct);
        foreach (var appliance in data.Appliances)
            await PutAsync(db, appliance, null, by, ct);
        foreach (var drive in data.DriveModels ?? [])
            await PutDriveModelAsync(db, drive, by, ct);
        foreach (var listed in (data.Qualified ?? []).Distinct())
            if (await db.QualifiedModels.FindAsync([listed.ApplianceModel, listed.DriveModel], ct) is null)
                db.QualifiedModels.Add(new() { ApplianceModel = listed.ApplianceModel, DriveModel = listed.DriveModel });
        foreach (var rule in data.Rules ?? [])
            await PutRuleAsync(db, rule, by, ct);
        await db.SaveChangesAsync(ct);
        return [];
    }

    /// <summary>Replaces one appliance if it still is at the version the editor saw.</summary>
    /// <returns>The new version; null when somebody else changed it in between.</returns>
    public async Task<long?> ReplaceAsync(Appliance appliance, long seen, string by, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        if (!await PutAsync(db, appliance, seen, by, ct))
            return null;
        try
        {
            await db.SaveChangesAsync(ct);
            return seen + 1;
        }
        catch (DbUpdateConcurrencyException)
        {
            return null;
        }
    }

    private async Task PutModelAsync(NailcrowDb db, ApplianceModel model, string by, CancellationToken ct)
    {
        var row = await db.Models.FindAsync([model.Id], ct);
        var body = Text(model, JournalJson.Default.ApplianceModel);
        Log(db, by, "model", model.Id, row?.Body, body);
        if (row is null)
            db.Models.Add(new() { Id = model.Id, Body = body });
        else
            row.Body = body;
    }

    private async Task PutDriveModelAsync(NailcrowDb db, DriveModel drive, string by, CancellationToken ct)
    {
        var row = await db.DriveModels.FindAsync([drive.Id], ct);
        var body = Text(drive, JournalJson.Default.DriveModel);
        Log(db, by, "drive-model", drive.Id, row?.Body, body);
        if (row is null)
            db.DriveModels.Add(new() { Id = drive.Id, Body = body });
        else
            row.Body = body;
    }

    private async Task PutRuleAsync(NailcrowDb db, IntakeRule rule, string by, CancellationToken ct)
    {
        var row = await db.IntakeRules.FindAsync([rule.Id], ct);
        var body = Text(rule, JournalJson.Default.IntakeRule);
        Log(db, by, "rule", rule.Id, row?.Body, body);
        if (row is null)
            db.IntakeRules.Add(new() { Id = rule.Id, Body = body });
        else
            row.Body = body;
    }

    /// <summary>All intake rules, in order of id.</summary>
    public async Task<IReadOnlyList<IntakeRule>> RulesAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return
        [
            .. (await db.IntakeRules.AsNoTracking().OrderBy(r => r.Id).ToListAsync(ct)).Select(r =>
                Parse(r.Body, JournalJson.Default.IntakeRule)
            ),
        ];
    }

    public async Task<IReadOnlyList<DriveModel>> DriveModelsAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return
        [
            .. (await db.DriveModels.AsNoTracking().OrderBy(r => r.Id).ToListAsync(ct)).Select(r =>
                Parse(r.Body, JournalJson.Default.DriveModel)
            ),
        ];
    }

    /// <summary>The drive models that are qualified in an appliance model; none where there is no list.</summary>
    public async Task<IReadOnlySet<string>> QualifiedAsync(string applianceModel, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.QualifiedModels.Where(q => q.ApplianceModel == applianceModel).Select(q => q.DriveModel).ToHashSetAsync(ct);
    }

    /// <summary>The appliances that these senders are: by the name they send as, or the host of their management address.</summary>
    public async Task<IReadOnlyDictionary<string, string>> SendersAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var known = await db
            .Appliances.AsNoTracking()
            .Where(a => a.SendsAs != null || a.Address != null)
            .Select(a => new
            {
                a.Asset,
                a.SendsAs,
                a.Address,
            })
            .ToListAsync(ct);
        var senders = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        foreach (var one in known.Where(k => Uri.TryCreate(k.Address, UriKind.Absolute, out _)))
            senders.TryAdd(new Uri(one.Address ?? "").Host, one.Asset);
        foreach (var one in known.Where(k => k.SendsAs is not null))
            senders[one.SendsAs ?? ""] = one.Asset; // a name that was given counts before one that was guessed
        return senders;
    }

    public async Task<IReadOnlyDictionary<string, Site>> SitesAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Sites.AsNoTracking().ToDictionaryAsync(s => s.Name, s => Parse(s.Body, JournalJson.Default.Site), ct);
    }

    private async Task PutSiteAsync(NailcrowDb db, Site site, string by, CancellationToken ct)
    {
        var row = await db.Sites.FindAsync([site.Name], ct);
        var body = Text(site, JournalJson.Default.Site);
        Log(db, by, "site", site.Name, row?.Body, body);
        if (row is null)
            db.Sites.Add(new() { Name = site.Name, Body = body });
        else
            row.Body = body;
    }

    private async Task<bool> PutAsync(NailcrowDb db, Appliance given, long? seen, string by, CancellationToken ct)
    {
        var appliance = given with { Asset = given.Asset.Trim().ToUpperInvariant() };
        var row = await db.Appliances.FindAsync([appliance.Asset], ct);
        if (seen is not null && row?.Version != seen)
            return false;
        Log(
            db,
            by,
            "appliance",
            appliance.Asset,
            row is null ? null : Text(Of(row), JournalJson.Default.Appliance),
            Text(appliance, JournalJson.Default.Appliance)
        );
        var arrays = JsonSerializer.Serialize([.. appliance.Arrays ?? []], JournalJson.Default.ArrayDesignArray);
        var expansions = appliance.Expansions is null
            ? null
            : JsonSerializer.Serialize([.. appliance.Expansions], JournalJson.Default.ExpansionArray);
        if (row is null)
            db.Appliances.Add(
                new()
                {
                    Asset = appliance.Asset,
                    Serial = appliance.Serial,
                    Model = appliance.Model,
                    Site = appliance.Site,
                    Location = appliance.Location,
                    Address = appliance.Address,
                    Arrays = arrays,
                    Expansions = expansions,
                    SendsAs = appliance.SendsAs,
                    Version = 1,
                }
            );
        else
            (row.Serial, row.Model, row.Site, row.Location, row.Address, row.Arrays, row.Expansions, row.SendsAs, row.Version) = (
                appliance.Serial,
                appliance.Model,
                appliance.Site,
                appliance.Location,
                appliance.Address,
                arrays,
                expansions,
                appliance.SendsAs,
                row.Version + 1
            );
        return true;
    }

    private void Log(NailcrowDb db, string by, string kind, string key, string? before, string after)
    {
        if (before != after)
            db.ReferenceChanges.Add(
                new()
                {
                    At = time.GetUtcNow(),
                    By = by,
                    Kind = kind,
                    Key = key,
                    Before = before,
                    After = after,
                }
            );
    }

    /// <summary>With their sites and models, in three questions however many they are.</summary>
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
            .ToDictionaryAsync(s => s.Name, s => Parse(s.Body, JournalJson.Default.Site), ct);
        var models = await db
            .Models.AsNoTracking()
            .Where(m => modelIds.Contains(m.Id))
            .ToDictionaryAsync(m => m.Id, m => Parse(m.Body, JournalJson.Default.ApplianceModel), ct);
        return
        [
            .. appliances.Zip(
                rows,
                (a, r) =>
                    new KnownAppliance(
                        a,
                        sites[a.Site],
                        models[a.Model],
                        [
                            ChassisDrawing.Of(models[a.Model]),
                            .. (a.Expansions ?? []).Select(e => ChassisDrawing.Of(models[e.Model], e.Name)),
                        ],
                        r.Version
                    )
            ),
        ];
    }

    private static Appliance Of(ApplianceRow row) =>
        new(
            row.Asset,
            row.Serial,
            row.Model,
            row.Site,
            row.Location,
            row.Address,
            Parse(row.Arrays, JournalJson.Default.ArrayDesignArray),
            row.Expansions is null ? null : Parse(row.Expansions, JournalJson.Default.ExpansionArray),
            row.SendsAs
        );

    private static string Text<T>(T value, JsonTypeInfo<T> type) => JsonSerializer.Serialize(value, type);

    private static T Parse<T>(string body, JsonTypeInfo<T> type) =>
        JsonSerializer.Deserialize(body, type) ?? throw new InvalidDataException($"A stored {typeof(T).Name} is null.");
}
