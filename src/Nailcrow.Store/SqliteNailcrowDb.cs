using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Nailcrow.Store.Moving;
using Nailcrow.Store.Products;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store;

/// <summary>The embedded default: one file, nothing to install.</summary>
public sealed class SqliteNailcrowDb(DbContextOptions<SqliteNailcrowDb> options) : NailcrowDb(options)
{
    internal override DatabaseProduct Product { get; } = new SqliteProduct();

    // SQLite orders text, not instants; a number does, of instants in UTC.
    protected override void ConfigureConventions(ModelConfigurationBuilder conventions)
    {
        conventions.Properties<DateTimeOffset>().HaveConversion<KeptTime>();
        conventions.Properties<int>().HaveConversion<KeptNumber>();
    }

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.MapNeverGiven();
    }
}

/// <summary>For <c>dotnet ef migrations add</c> only.</summary>
internal sealed class SqliteDesign : IDesignTimeDbContextFactory<SqliteNailcrowDb>
{
    public SqliteNailcrowDb CreateDbContext(string[] args) =>
        new(StoreRegistration.OnSqlite(new DbContextOptionsBuilder<SqliteNailcrowDb>(), "design.db").Options);
}
