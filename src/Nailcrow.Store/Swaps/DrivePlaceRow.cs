using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Returns;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Swaps;

/// <summary>Where one ticket last put a drive. A projection: it can be made again from the journal.</summary>
internal sealed class DrivePlaceRow
{
    public required string Serial { get; init; }
    public required long Ticket { get; init; }
    public required string Asset { get; set; }
    public required HolderKind HolderKind { get; set; }
    public required string Holder { get; set; }
    public required DateTimeOffset At { get; set; }
}

internal sealed class DrivePlaceMapping : IEntityTypeConfiguration<DrivePlaceRow>
{
    public void Configure(EntityTypeBuilder<DrivePlaceRow> row)
    {
        row.ToTable("drive_place");
        row.HasKey(r => new { r.Serial, r.Ticket });
        row.HasIndex(r => r.Ticket);
        row.Property(r => r.HolderKind).HasConversion<KeptWord<HolderKind>>();
    }
}
