using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Returns.Ledger;

namespace Nailcrow.Store.Returns.Ledger;

/// <summary>One line of the ledger of parts. Rows are only ever added; triggers refuse everything else.</summary>
internal sealed class LedgerRow
{
    /// <summary>Order of arrival over all parts.</summary>
    public long Position { get; init; }
    public required string Serial { get; init; }
    public required long Seq { get; init; }
    public required Guid Id { get; init; }
    public long? Ticket { get; init; }
    public required DateTimeOffset At { get; init; }

    /// <summary>The canonical text that was accepted: what is hashed. The columns beside it are for finding.</summary>
    public required string Text { get; init; }

    /// <summary>SHA-256 over the hash of the part's line before and this text.</summary>
    public required string Hash { get; init; }

    public Movement? Read() => MovementText.Read(Text);
}

internal sealed class LedgerMapping : IEntityTypeConfiguration<LedgerRow>
{
    public void Configure(EntityTypeBuilder<LedgerRow> row)
    {
        row.ToTable("ledger");
        row.HasKey(r => r.Position);
        row.Property(r => r.Position).ValueGeneratedOnAdd();
        row.HasIndex(r => new { r.Serial, r.Seq }).IsUnique(); // two writers of one part collide here, not in memory
        row.HasIndex(r => r.Id).IsUnique();
        row.HasIndex(r => r.Ticket);
    }
}
