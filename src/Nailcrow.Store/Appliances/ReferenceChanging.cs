using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Store.Appliances;

/// <summary>How reference data is added to and changed: all of a file or nothing, and every change in the log.</summary>
public sealed class ReferenceChanging(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    /// <summary>Adds or replaces all that is given, or nothing: every problem is told, each as a sentence.</summary>
    /// <param name="found">What whoever asks has found wrong with it already; told with the rest.</param>
    public async Task<IReadOnlyList<string>> LoadAsync(
        ReferenceData data,
        string by,
        CancellationToken ct,
        IEnumerable<string>? found = null
    )
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var models = await db.Models.Select(m => m.Id).ToHashSetAsync(ct);
        var sites = await db.Sites.Select(s => s.Name).ToHashSetAsync(ct);
        if (data.Problems(models, sites).Concat(found ?? []).ToList() is { Count: > 0 } problems)
            return problems;
        var change = new Change(db, by, ct);
        foreach (var model in data.Models)
            await PutAsync(change, model);
        foreach (var customer in data.Customers ?? [])
            await PutAsync(change, customer);
        foreach (var site in data.Sites)
            await PutAsync(change, site);
        foreach (var appliance in data.Appliances)
            await PutAsync(db, appliance, null, by, ct);
        foreach (var drive in data.DriveModels ?? [])
            await PutAsync(change, drive);
        foreach (var listed in (data.Qualified ?? []).Distinct())
            if (await db.QualifiedModels.FindAsync([listed.ApplianceModel, listed.DriveModel], ct) is { } there)
                there.NotBecause = listed.NotBecause ?? there.NotBecause; // one that says nothing of it changes nothing of it
            else
                db.QualifiedModels.Add(
                    new()
                    {
                        ApplianceModel = listed.ApplianceModel,
                        DriveModel = listed.DriveModel,
                        NotBecause = listed.NotBecause,
                    }
                );
        foreach (var rule in data.Rules ?? [])
            await PutAsync(change, rule);
        await db.SaveChangesAsync(ct);
        return [];
    }

    /// <summary>Adds one machine, with its site and customer where those are new: nothing that is known is changed by it, however many add at once.</summary>
    /// <returns>What is known already or cannot be, as a sentence; null where it was added.</returns>
    public async Task<string?> AddAsync(Appliance machine, Site? site, Customer? customer, string by, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var asset = machine.Asset.Trim().ToUpperInvariant();
        if (await db.Appliances.AnyAsync(a => a.Asset == asset, ct))
            return $"{asset} is known already; its record is put right, not added.";
        if (site is not null && await db.Sites.AnyAsync(s => s.Name == site.Name, ct))
            return $"There is a site '{site.Name}' already; name it without describing it anew.";
        var models = await db.Models.Select(m => m.Id).ToHashSetAsync(ct);
        var sites = await db.Sites.Select(s => s.Name).ToHashSetAsync(ct);
        if (new ReferenceData([], site is null ? [] : [site], [machine]).Problems(models, sites).FirstOrDefault() is { } problem)
            return problem;
        if (customer is not null && await db.Customers.AnyAsync(c => c.Name == customer.Name, ct))
            return $"There is a customer '{customer.Name}' already; name them without describing them anew.";
        if (customer is not null)
            await PutAsync(new(db, by, ct), customer);
        if (site is not null)
            await PutAsync(new(db, by, ct), site);
        await PutAsync(db, machine, null, by, ct);
        try
        {
            await db.SaveChangesAsync(ct);
            return null;
        }
        catch (DbUpdateException)
        {
            await using var now = await dbs.CreateDbContextAsync(ct);
            if (await now.Appliances.AnyAsync(a => a.Asset == asset, ct))
                return $"{asset} was added by somebody else just now.";
            throw; // nobody was faster: it could not be written
        }
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

    /// <summary>Adds a customer, or replaces one that still is at the version the editor saw.</summary>
    /// <param name="seen">That version; null where the editor saw none, and there must be none.</param>
    /// <returns>Whether it was: not where somebody else added or changed it in between.</returns>
    public async Task<bool> PutAsync(Customer customer, string? seen, string by, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        if ((await db.Customers.FindAsync([customer.Name], ct))?.Version != seen)
            return false;
        await PutAsync(new(db, by, ct), customer);
        try
        {
            await db.SaveChangesAsync(ct);
            return true;
        }
        catch (DbUpdateException)
        {
            await using var now = await dbs.CreateDbContextAsync(ct);
            if ((await now.Customers.FindAsync([customer.Name], ct))?.Version == seen)
                throw; // nobody was faster: it could not be written
            return false;
        }
    }

    /// <summary>Adds or replaces one row that is kept as JSON, with its line in the log.</summary>
    private async Task PutAsync<TRow>(Change change, DbSet<TRow> rows, string kind, string key, string body, Func<TRow> made)
        where TRow : class, IKeptAsJson
    {
        var row = await rows.FindAsync([key], change.Ct);
        Log(change.Db, change.By, kind, key, row?.Body, body);
        if (row is null)
            rows.Add(made());
        else
            row.Body = body;
    }

    private Task PutAsync(Change change, ApplianceModel model)
    {
        var body = StoredJson.Text(model, JournalJson.Default.ApplianceModel);
        return PutAsync(change, change.Db.Models, "model", model.Id, body, () => new() { Id = model.Id, Body = body });
    }

    private async Task PutAsync(Change change, Site site)
    {
        var body = StoredJson.Text(site, JournalJson.Default.Site);
        await PutAsync(change, change.Db.Sites, "site", site.Name, body, () => SiteRow.Of(site));
        (await change.Db.Sites.FindAsync([site.Name], change.Ct))?.Customer = site.Customer;
        if (await change.Db.Customers.FindAsync([site.Customer], change.Ct) is null)
            await PutAsync(change, new Customer(site.Customer));
    }

    private Task PutAsync(Change change, Customer customer)
    {
        var body = StoredJson.Text(customer, JournalJson.Default.Customer);
        return PutAsync(change, change.Db.Customers, "customer", customer.Name, body, () => new() { Name = customer.Name, Body = body });
    }

    private Task PutAsync(Change change, DriveModel drive)
    {
        var body = StoredJson.Text(drive, JournalJson.Default.DriveModel);
        return PutAsync(change, change.Db.DriveModels, "drive-model", drive.Id, body, () => new() { Id = drive.Id, Body = body });
    }

    private Task PutAsync(Change change, IntakeRule rule)
    {
        var body = StoredJson.Text(rule, JournalJson.Default.IntakeRule);
        return PutAsync(change, change.Db.IntakeRules, "rule", rule.Id, body, () => new() { Id = rule.Id, Body = body });
    }

    private sealed record Change(NailcrowDb Db, string By, CancellationToken Ct);

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
