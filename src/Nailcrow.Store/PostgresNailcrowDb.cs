using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Products;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Store;

/// <summary>For many nodes: everything on one PostgreSQL.</summary>
public sealed class PostgresNailcrowDb(DbContextOptions<PostgresNailcrowDb> options) : NailcrowDb(options)
{
    /// <summary>What of a ticket is found by any part of it, in one column that the database makes by itself.</summary>
    internal const string FoundBy = "FoundBy";

    internal override DatabaseProduct Product { get; } = new PostgresProduct();

    protected override void ConfigureConventions(ModelConfigurationBuilder conventions)
    {
        conventions.Properties<DateTimeOffset>().HaveConversion<KeptMoment>();
        // Code compares texts by their characters' numbers, wherever the database was made.
        conventions.Properties<string>().UseCollation("C");
    }

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.HasPostgresExtension("pg_trgm");
        builder.MapNodes();
        builder.Entity<TicketLineRow>(row =>
        {
            row.Property<string>(FoundBy)
                .HasComputedColumnSql(
                    // In small letters of all scripts, whatever the database's own language is.
                    "lower((asset || chr(10) || coalesce(serial, '') || chr(10) || site || chr(10) || customer) COLLATE \"und-x-icu\")",
                    stored: true
                );
            row.HasIndex(FoundBy).HasMethod("gin").HasOperators("gin_trgm_ops");
        });
    }
}

/// <summary>An instant in UTC and in whole microseconds, which is all that a <c>timestamptz</c> holds.</summary>
public sealed class KeptMoment() : ValueConverter<DateTimeOffset, DateTime>(time => Keep(time), kept => Read(kept))
{
    public static DateTime Keep(DateTimeOffset time) =>
        new(time.UtcTicks / TimeSpan.TicksPerMicrosecond * TimeSpan.TicksPerMicrosecond, DateTimeKind.Utc);

    public static DateTimeOffset Read(DateTime kept) => new(DateTime.SpecifyKind(kept, DateTimeKind.Utc));
}

/// <summary>For <c>dotnet ef migrations add</c> only.</summary>
internal sealed class PostgresDesign : IDesignTimeDbContextFactory<PostgresNailcrowDb>
{
    public PostgresNailcrowDb CreateDbContext(string[] args) =>
        new(StoreRegistration.OnPostgres(new DbContextOptionsBuilder<PostgresNailcrowDb>(), "Host=design").Options);
}
