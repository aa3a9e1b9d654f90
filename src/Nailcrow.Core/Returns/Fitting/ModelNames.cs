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
