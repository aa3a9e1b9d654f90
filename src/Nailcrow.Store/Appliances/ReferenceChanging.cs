using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Store.Appliances;

/// <summary>How reference data is added to and changed: all of a file or nothing, and every change in the log.</summary>
public sealed class ReferenceChanging(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
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
        var body = StoredJson.Text(model, JournalJson.Default.ApplianceModel);
        Log(db, by, "model", model.Id, row?.Body, body);
        if (row is null)
            db.Models.Add(new() { Id = model.Id, Body = body });
        else
            row.Body = body;
    }

    private async Task PutDriveModelAsync(NailcrowDb db, DriveModel drive, string by, CancellationToken ct)
    {
        var row = await db.DriveModels.FindAsync([drive.Id], ct);
        var body = StoredJson.Text(drive, JournalJson.Default.DriveModel);
        Log(db, by, "drive-model", drive.Id, row?.Body, body);
        if (row is null)
            db.DriveModels.Add(new() { Id = drive.Id, Body = body });
        else
            row.Body = body;
    }

    private async Task PutRuleAsync(NailcrowDb db, IntakeRule rule, string by, CancellationToken ct)
    {
        var row = await db.IntakeRules.FindAsync([rule.Id], ct);
        var body = StoredJson.Text(rule, JournalJson.Default.IntakeRule);
        Log(db, by, "rule", rule.Id, row?.Body, body);
        if (row is null)
            db.IntakeRules.Add(new() { Id = rule.Id, Body = body });
        else
            row.Body = body;
    }

    private async Task PutSiteAsync(NailcrowDb db, Site site, string by, CancellationToken ct)
    {
        var row = await db.Sites.FindAsync([site.Name], ct);
        var body = StoredJson.Text(site, JournalJson.Default.Site);
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
            row is null ? null : StoredJson.Text(ReferenceBook.Of(row), JournalJson.Default.Appliance),
            StoredJson.Text(appliance, JournalJson.Default.Appliance)
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
}
