namespace Nailcrow.Core.Returns.Fitting;

/// <summary>The list of drive models, asked by whatever name a part came under.</summary>
public sealed class ListedModels(IReadOnlyCollection<DriveModel> all)
{
    private readonly Dictionary<string, DriveModel> _byName = all.ToDictionary(m => m.Id);
    private readonly ModelNames _names = new([.. all.Select(m => m.Id)]);

    public IReadOnlyCollection<DriveModel> All => all;

    /// <returns>Null where the list has none that is called so, or several.</returns>
    public DriveModel? Find(string named) => _byName.GetValueOrDefault(_names.Of(named));
}
