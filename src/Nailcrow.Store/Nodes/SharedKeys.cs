using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store.Nodes;

/// <summary>A key that all nodes have.</summary>
internal sealed class SharedKeyRow
{
    public required string Kind { get; init; }
    public required string Name { get; init; }
    public required string Text { get; init; }
}

/// <summary>Keys of all nodes, in the database they share. How they are protected there is for whoever keeps them to say.</summary>
public sealed class SharedKeys(IDbContextFactory<NailcrowDb> dbs)
{
    public IReadOnlyList<string> All(string kind)
    {
        using var db = dbs.CreateDbContext();
        return [.. db.Set<SharedKeyRow>().AsNoTracking().Where(k => k.Kind == kind).OrderBy(k => k.Name).Select(k => k.Text)];
    }

    /// <returns>What stands there under that name: of nodes that keep one at once, the first one's.</returns>
    public string Keep(string kind, string name, string text)
    {
        using var db = dbs.CreateDbContext();
        db.Database.ExecuteSql($"INSERT INTO shared_key (kind, name, text) VALUES ({kind}, {name}, {text}) ON CONFLICT DO NOTHING");
        return db.Set<SharedKeyRow>().AsNoTracking().Single(k => k.Kind == kind && k.Name == name).Text;
    }
}
