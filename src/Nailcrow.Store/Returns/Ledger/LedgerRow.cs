using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Terms;

namespace Nailcrow.Store.Returns.Ledger;

/// <summary>One line of the ledger: of a part, by its serial, or of a supply, by its name. Rows are only ever added; triggers refuse everything else.</summary>
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

    /// <summary>What it says of a part; null where it tells of a supply, or cannot be read.</summary>
    public Movement? Read() => IsOfSupply ? null : MovementText.Read(Text);

    public bool IsOfSupply => Serial.StartsWith(SupplyName.KeyBegins, StringComparison.Ordinal);

    /// <summary>Under which name, number, id and ticket it tells of what it tells; null where it cannot be read.</summary>
    public (string Serial, long Seq, Guid Id, long? Ticket)? Says() =>
        IsOfSupply
            ? SupplyText.Read(Text) is { } move && SupplyName.Parse(move.Supply) is Parsed<SupplyName>.Ok(var name)
                ? (name.Key, move.Seq, move.Id, move.Ticket)
                : null
            : Read() is { } said
                ? (said.Serial, said.Seq, said.Id, said.Ticket)
                : null;
}

internal sealed class LedgerMapping : IEntityTypeConfiguration<LedgerRow>
{
    public void Configure(EntityTypeBuilder<LedgerRow> row)
    {
        row.ToTable("ledger");
        row.HasKey(r => r.Position);
        row.Ignore(r => r.IsOfSupply);
        row.Property(r => r.Position).ValueGeneratedOnAdd();
        row.HasIndex(r => new { r.Serial, r.Seq }).IsUnique(); // two writers of one part collide here, not in memory
        row.HasIndex(r => r.Id).IsUnique();
        row.HasIndex(r => r.Ticket);
    }
}
