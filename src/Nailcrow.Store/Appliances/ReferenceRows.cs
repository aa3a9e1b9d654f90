using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Tickets.Journal.Canonical;

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
    public required string Customer { get; set; }
    public required string Body { get; set; }

    public static SiteRow Of(Site site) =>
        new()
        {
            Name = site.Name,
            Customer = site.Customer,
            Body = StoredJson.Text(site, JournalJson.Default.Site),
        };
}

internal sealed class CustomerRow : IKeptAsJson
{
    public required string Name { get; init; }
    public required string Body { get; set; }

    /// <summary>Another text, another version: an edit names the one it is of.</summary>
    public string Version => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(Body)))[..16];
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
    public void Configure(EntityTypeBuilder<SiteRow> row)
    {
        row.ToTable("site").HasKey(r => r.Name);
        row.HasIndex(r => r.Customer);
    }
}

internal sealed class CustomerMapping : IEntityTypeConfiguration<CustomerRow>
{
    public void Configure(EntityTypeBuilder<CustomerRow> row)
    {
        row.ToTable("customer").HasKey(r => r.Name);
        row.Ignore(r => r.Version);
        row.Property(r => r.Body).IsConcurrencyToken(); // a change is one to what its editor saw
    }
}

internal sealed class ModelMapping : IEntityTypeConfiguration<ModelRow>
{
    public void Configure(EntityTypeBuilder<ModelRow> row) => row.ToTable("appliance_model").HasKey(r => r.Id);
}

internal sealed class ReferenceChangeMapping : IEntityTypeConfiguration<ReferenceChangeRow>
{
    public void Configure(EntityTypeBuilder<ReferenceChangeRow> row) => row.ToTable("reference_change").HasKey(r => r.Id);
}
