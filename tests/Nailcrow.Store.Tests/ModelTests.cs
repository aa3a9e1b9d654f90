using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Metadata;

namespace Nailcrow.Store.Tests;

/// <summary>A mapping that was changed and not made again would be read and written the old way, silently.</summary>
public sealed class ModelTests(StoreInUse store) : IClassFixture<StoreInUse>
{
    private NailcrowDb Db() => store.Get<IDbContextFactory<NailcrowDb>>().CreateDbContext();

    private static string Told(IModel model) =>
        string.Join('\n', model.GetEntityTypes().OrderBy(e => e.Name, StringComparer.Ordinal).SelectMany(Lines));

    private static IEnumerable<string> Lines(IEntityType entity)
    {
        foreach (var p in entity.GetProperties().OrderBy(p => p.Name, StringComparer.Ordinal))
            yield return $"{entity.GetTableName()}.{p.GetColumnName()}: {p.ClrType.Name}, null {p.IsNullable}, length "
                + $"{p.GetMaxLength()}, made {p.ValueGenerated}, through {p.GetTypeMapping().Converter?.GetType().Name}";
        foreach (var key in entity.GetKeys())
            yield return $"{entity.GetTableName()} key ({string.Join(", ", key.Properties.Select(p => p.Name))})";
        foreach (var index in entity.GetIndexes().OrderBy(i => i.GetDatabaseName(), StringComparer.Ordinal))
            yield return $"{entity.GetTableName()} index {index.GetDatabaseName()} "
                + $"({string.Join(", ", index.Properties.Select(p => p.Name))}) unique {index.IsUnique}";
    }

    [Fact]
    public void The_compiled_model_is_the_one_the_mappings_make()
    {
        using var db = Db();

        Told(db.Model).ShouldBe(Told(db.GetService<IDesignTimeModel>().Model), "tools/update-store.sh makes it again.");
    }

    [Fact]
    public void Every_change_to_a_mapping_has_its_migration()
    {
        using var db = Db();

        db.Database.HasPendingModelChanges().ShouldBeFalse("tools/update-store.sh NAME adds one.");
    }
}
