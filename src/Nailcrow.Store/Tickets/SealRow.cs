using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.Tickets;

/// <summary>A seal that was made, with what the next one goes on from. The seal's own file is what proves; this row only saves reckoning.</summary>
internal sealed class SealRow
{
    public required long Number { get; init; }

    /// <summary>How many entries it covers, in order of arrival.</summary>
    public required long Entries { get; init; }

    /// <summary>The position of the last of them.</summary>
    public required long Position { get; init; }

    /// <summary>The position of the last entry of its last whole block; 0 where it has none. The next seal reads on from there.</summary>
    public required long BlockPosition { get; init; }
    public required DateTimeOffset SealedAt { get; init; }
    public required string Text { get; init; }
}

internal sealed class SealMapping : IEntityTypeConfiguration<SealRow>
{
    public void Configure(EntityTypeBuilder<SealRow> row)
    {
        row.ToTable("seal");
        row.HasKey(r => r.Number);
        row.Property(r => r.Number).ValueGeneratedNever();
    }
}
