using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Returns;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Returns.Outside;

/// <summary>Somebody outside whom the service can ask.</summary>
internal sealed class PartnerRow
{
    public required string Name { get; init; }
    public required PartnerKind Kind { get; init; }
    public required string Address { get; init; }

    /// <summary>What both sign with, under the service's own keys.</summary>
    public required string Secret { get; init; }
}

internal sealed class PartnerMapping : IEntityTypeConfiguration<PartnerRow>
{
    public void Configure(EntityTypeBuilder<PartnerRow> row)
    {
        row.ToTable("partner").HasKey(r => r.Name);
        row.Property(r => r.Kind).HasConversion<KeptWord<PartnerKind>>();
    }
}
