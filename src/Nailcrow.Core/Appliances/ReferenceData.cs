namespace Nailcrow.Core.Appliances;

/// <summary>What the firm knows before any fault: models, sites and appliances.</summary>
public sealed record ReferenceData(
    IReadOnlyList<ApplianceModel> Models,
    IReadOnlyList<Site> Sites,
    IReadOnlyList<Appliance> Appliances
)
{
    /// <summary>Everything wrong with it, each as a sentence. What is there already counts as known.</summary>
    public IEnumerable<string> Problems(IReadOnlySet<string> knownModels, IReadOnlySet<string> knownSites)
    {
        foreach (var model in Models.Where(m => m.Rows < 1 || m.Columns < 1 || m.WaitAfterPullSeconds < 0))
            yield return $"Model '{model.Id}' has {model.Rows} rows, {model.Columns} columns and a wait of {model.WaitAfterPullSeconds} s; rows and columns are at least 1, a wait at least 0.";
        foreach (var site in Sites.Where(s => !TimeZoneInfo.TryFindSystemTimeZoneById(s.Zone, out _)))
            yield return $"Site '{site.Name}' has the time zone '{site.Zone}', which is none; write one like 'Europe/Oslo'.";
        foreach (var appliance in Appliances)
            foreach (var problem in Problems(appliance, knownModels, knownSites))
                yield return problem;
    }

    private IEnumerable<string> Problems(Appliance appliance, IReadOnlySet<string> knownModels, IReadOnlySet<string> knownSites)
    {
        if (!knownModels.Contains(appliance.Model) && Models.All(m => m.Id != appliance.Model))
            yield return $"Appliance {appliance.Asset} is of model '{appliance.Model}', which is not known; known: {Told(Models.Select(m => m.Id).Concat(knownModels))}.";
        if (!knownSites.Contains(appliance.Site) && Sites.All(s => s.Name != appliance.Site))
            yield return $"Appliance {appliance.Asset} stands at '{appliance.Site}', which is no site here; known: {Told(Sites.Select(s => s.Name).Concat(knownSites))}.";
        if (appliance.Address is { } address && !(Uri.TryCreate(address, UriKind.Absolute, out var url) && url.Scheme is "http" or "https"))
            yield return $"Appliance {appliance.Asset} has the address '{address}'; write one like https://10.0.0.7.";
        foreach (var array in appliance.Arrays ?? [])
            if (array.Members < 1)
                yield return $"Array {array.Name} of {appliance.Asset} has {array.Members} members; at least 1.";
    }

    private static string Told(IEnumerable<string> names) => string.Join(", ", names.Distinct().Take(20).DefaultIfEmpty("none"));
}
