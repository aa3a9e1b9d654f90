using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.Appliances;

/// <summary>Where a snapshot of an appliance is to be found: the entry that took it. A projection of the journal.</summary>
internal sealed class SnapshotRow
{
    public required long Ticket { get; init; }
    public required long Seq { get; init; }
    public required string Asset { get; init; }
    public required DateTimeOffset At { get; init; }
    public required string Source { get; init; }
    public required string By { get; init; }
}

/// <summary>One thing that is known of a drive. A projection of the journal.</summary>
internal sealed class LifeEventRow
{
    public required string Serial { get; init; }
    public required long Ticket { get; init; }

    /// <summary>Its number among the events of its ticket.</summary>
    public required int Nth { get; init; }
    public required DateTimeOffset At { get; init; }
    public required string Kind { get; init; }
    public required string Asset { get; init; }
    public string? Bay { get; init; }
    public required string Sentence { get; init; }
    public required string By { get; init; }
}

internal sealed class SnapshotMapping : IEntityTypeConfiguration<SnapshotRow>
{
    public void Configure(EntityTypeBuilder<SnapshotRow> row)
    {
        row.ToTable("snapshot");
        row.HasKey(r => new { r.Ticket, r.Seq });
        row.HasIndex(r => new { r.Asset, r.At });
    }
}

internal sealed class LifeEventMapping : IEntityTypeConfiguration<LifeEventRow>
{
    public void Configure(EntityTypeBuilder<LifeEventRow> row)
    {
        row.ToTable("drive_life");
        row.HasKey(r => new { r.Ticket, r.Nth });
        row.HasIndex(r => new { r.Serial, r.At });
    }
}
