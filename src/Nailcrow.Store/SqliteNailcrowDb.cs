using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Nailcrow.Store;

/// <summary>The embedded default: one file, nothing to install.</summary>
public sealed class SqliteNailcrowDb(DbContextOptions<SqliteNailcrowDb> options) : NailcrowDb(options)
{
    // SQLite orders text, not instants; the binary form keeps order and offset.
    protected override void ConfigureConventions(ModelConfigurationBuilder conventions)
    {
        conventions.Properties<DateTimeOffset>().HaveConversion<KeptTime>();
        conventions.Properties<int>().HaveConversion<KeptNumber>();
    }
}

/// <summary>For <c>dotnet ef migrations add</c> only.</summary>
internal sealed class SqliteDesign : IDesignTimeDbContextFactory<SqliteNailcrowDb>
{
    public SqliteNailcrowDb CreateDbContext(string[] args) =>
        new(StoreRegistration.OnSqlite(new DbContextOptionsBuilder<SqliteNailcrowDb>(), "design.db").Options);
}
