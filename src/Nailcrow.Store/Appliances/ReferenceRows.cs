using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.Appliances;

/// <summary>An appliance, with how its arrays were set up as JSON.</summary>
internal sealed class ApplianceRow
{
    public required string Asset { get; init; }
    public required string Serial { get; set; }
    public required string Model { get; set; }
    public required string Site { get; set; }
    public required string Location { get; set; }
    public string? Address { get; set; }
    public required string Arrays { get; set; }
    public string? Expansions { get; set; }
    public string? SendsAs { get; set; }
    public required long Version { get; set; }
}

internal sealed class SiteRow : IKeptAsJson
{
    public required string Name { get; init; }
    public required string Body { get; set; }
}

/// <summary>A model as its JSON: many properties, always read whole.</summary>
internal sealed class ModelRow : IKeptAsJson
{
    public required string Id { get; init; }
    public required string Body { get; set; }
}

/// <summary>Who changed what the firm knows, when, and what it was before.</summary>
internal sealed class ReferenceChangeRow
{
    public long Id { get; init; }
    public required DateTimeOffset At { get; init; }
    public required string By { get; init; }
    public required string Kind { get; init; }
    public required string Key { get; init; }
    public string? Before { get; init; }
    public required string After { get; init; }
}

internal sealed class ApplianceMapping : IEntityTypeConfiguration<ApplianceRow>
{
    public void Configure(EntityTypeBuilder<ApplianceRow> row)
    {
        row.ToTable("appliance");
        row.HasKey(r => r.Asset);
        row.HasIndex(r => r.Serial);
        row.HasIndex(r => r.SendsAs);
        row.HasIndex(r => r.Site);
        row.Property(r => r.Version).IsConcurrencyToken();
    }
}

internal sealed class SiteMapping : IEntityTypeConfiguration<SiteRow>
{
    public void Configure(EntityTypeBuilder<SiteRow> row) => row.ToTable("site").HasKey(r => r.Name);
}

internal sealed class ModelMapping : IEntityTypeConfiguration<ModelRow>
{
    public void Configure(EntityTypeBuilder<ModelRow> row) => row.ToTable("appliance_model").HasKey(r => r.Id);
}

internal sealed class ReferenceChangeMapping : IEntityTypeConfiguration<ReferenceChangeRow>
{
    public void Configure(EntityTypeBuilder<ReferenceChangeRow> row) => row.ToTable("reference_change").HasKey(r => r.Id);
}
