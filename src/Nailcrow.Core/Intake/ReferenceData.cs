using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Core.Intake;

/// <summary>What the firm knows before any fault: models, sites, customers and appliances.</summary>
public sealed record ReferenceData(
    IReadOnlyList<ApplianceModel> Models,
    IReadOnlyList<Site> Sites,
    IReadOnlyList<Appliance> Appliances,
    IReadOnlyList<DriveModel>? DriveModels = null,
    IReadOnlyList<Qualified>? Qualified = null,
    IReadOnlyList<IntakeRule>? Rules = null,
    IReadOnlyList<Customer>? Customers = null
)
{
    /// <summary>Everything wrong with it, each as a sentence. What is there already counts as known.</summary>
    public IEnumerable<string> Problems(IReadOnlySet<string> knownModels, IReadOnlySet<string> knownSites)
    {
        foreach (var problem in Models.SelectMany(m => m.Problems()))
            yield return problem;
        foreach (var site in Sites.Where(s => !TimeZoneInfo.TryFindSystemTimeZoneById(s.Zone, out _)))
            yield return $"Site '{site.Name}' has the time zone '{site.Zone}', which is none; write one like 'Europe/Oslo'.";
        foreach (var site in Sites)
            if (site.Hours is { } hours && OpeningHours.Parse(hours) is Parsed<OpeningHours>.Refused(var reason))
                yield return $"Site '{site.Name}': {reason}";
        foreach (
            var site in Sites.Where(s =>
                s.Latitude is not (null or (>= -90 and <= 90)) || s.Longitude is not (null or (>= -180 and <= 180))
            )
        )
            yield return $"Site '{site.Name}' is at {site.Latitude}, {site.Longitude}; latitude is -90 to 90, longitude -180 to 180 degrees.";
        foreach (var customer in Customers ?? [])
            if (customer.Problem() is { } problem)
                yield return $"Customer '{customer.Name}': {problem}";
        foreach (var appliance in Appliances)
        foreach (var problem in Problems(appliance, knownModels, knownSites))
            yield return problem;
        foreach (var rule in Rules ?? [])
            if (rule.Problem() is { } problem)
                yield return problem;
        foreach (var drive in (DriveModels ?? []).Where(d => d.Bytes < ByteSize.FewestOfADrive))
            yield return $"Drive model '{drive.Id}' has {drive.Bytes} bytes; sizes are in bytes. Was it meant in GB?";
    }

    private IEnumerable<string> Problems(Appliance appliance, IReadOnlySet<string> knownModels, IReadOnlySet<string> knownSites)
    {
        if (!knownModels.Contains(appliance.Model) && Models.All(m => m.Id != appliance.Model))
            yield return $"Appliance {appliance.Asset} is of model '{appliance.Model}', which is not known; known: "
                + $"{Told(Models.Select(m => m.Id).Concat(knownModels))}.";
        if (!knownSites.Contains(appliance.Site) && Sites.All(s => s.Name != appliance.Site))
            yield return $"Appliance {appliance.Asset} stands at '{appliance.Site}', which is no site here; known: "
                + $"{Told(Sites.Select(s => s.Name).Concat(knownSites))}.";
        if (appliance.Address is { } address && MachineAddress.Problem(address) is { } unusable)
            yield return $"Appliance {appliance.Asset} {unusable}";
        foreach (var expansion in appliance.Expansions ?? [])
            if (!knownModels.Contains(expansion.Model) && Models.All(m => m.Id != expansion.Model))
                yield return $"Expansion {expansion.Name} of {appliance.Asset} is of model '{expansion.Model}', which is not known.";
        if (BaysOf(appliance) is { } bays && (appliance.Arrays ?? []).Sum(a => a.Members) is var members && members > bays)
            yield return $"The arrays of {appliance.Asset} have {members} members, and it has {bays} bays.";
        foreach (var problem in ArrayProblems(appliance))
            yield return problem;
    }

    /// <summary>Null where a model of it is not in this file.</summary>
    private int? BaysOf(Appliance appliance)
    {
        var models = (appliance.Expansions ?? [])
            .Select(e => e.Model)
            .Prepend(appliance.Model)
            .Select(id => Models.FirstOrDefault(m => m.Id == id))
            .ToList();
        return models.Contains(null) ? null : models.Sum(m => m?.Bays);
    }

    private static IEnumerable<string> ArrayProblems(Appliance appliance)
    {
        var arrays = appliance.Arrays ?? [];
        foreach (var twice in arrays.GroupBy(a => a.Name, StringComparer.OrdinalIgnoreCase).Where(g => g.Count() > 1))
            yield return $"{appliance.Asset} has two arrays called {twice.Key}; each has a name of its own.";
        foreach (var array in arrays)
        {
            if (Redundancy.Problem(array.Level, array.Members, array.Groups, array.Parity) is { } problem)
                yield return $"Array {array.Name} of {appliance.Asset} {problem}.";
            if (array.MemberBytes is { } bytes && bytes < ByteSize.FewestOfADrive)
                yield return $"Array {array.Name} of {appliance.Asset} uses {bytes} bytes of each member; sizes are in bytes, and "
                    + $"no drive is under {ByteSize.FewestOfADrive:N0}. Was it meant in GB?";
        }
    }

    private static string Told(IEnumerable<string> names) => string.Join(", ", names.Distinct().Take(20).DefaultIfEmpty("none"));
}
