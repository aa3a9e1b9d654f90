namespace Nailcrow.Core.Returns.Fitting;

/// <summary>
/// Under which name a drive model is counted, whoever named it: a list has maker and model, a machine the model alone, and a person
/// types it in small letters. Counted under two names, neither count is right.
/// </summary>
/// <param name="listed">What the list of drive models calls them.</param>
public sealed class ModelNames(IReadOnlyCollection<string> listed)
{
    private readonly Dictionary<string, string> _counted = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>
    /// The one listed model that is called so. Where there is none, or several are, it goes by the first that was said of those that
    /// differ in capitals and blanks alone.
    /// </summary>
    public string Of(string named)
    {
        var said = DriveModel.Spaced(named);
        if (_counted.TryGetValue(said, out var counted))
            return counted;
        var exactly = listed.FirstOrDefault(id => DriveModel.Spaced(id).Equals(said, StringComparison.OrdinalIgnoreCase));
        var called = listed.Where(id => DriveModel.IsCalled(id, said)).Take(2).ToList();
        return _counted[said] = exactly ?? (called is [var one] ? one : said);
    }
}

/// <summary>The list of drive models, asked by whatever name a part came under.</summary>
public sealed class ListedModels(IReadOnlyCollection<DriveModel> all)
{
    private readonly Dictionary<string, DriveModel> _byName = all.ToDictionary(m => m.Id);
    private readonly ModelNames _names = new([.. all.Select(m => m.Id)]);

    public IReadOnlyCollection<DriveModel> All => all;

    /// <returns>Null where the list has none that is called so, or several.</returns>
    public DriveModel? Find(string named) => _byName.GetValueOrDefault(_names.Of(named));
}
