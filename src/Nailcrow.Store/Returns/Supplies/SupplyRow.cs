using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Returns;
using Nailcrow.Store.Rows;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Returns.Supplies;

/// <summary>How many of one supply one holder has. A projection: it can be made again from the ledger.</summary>
internal sealed class SupplyRow
{
    /// <summary>Supply and holder in one.</summary>
    public required string Id { get; init; }

    /// <summary>The name of the supply's line in the ledger.</summary>
    public required string Key { get; init; }

    /// <summary>What it was called first.</summary>
    public required string Name { get; init; }
    public required HolderKind HolderKind { get; init; }
    public required string Holder { get; init; }
    public required long Count { get; init; }

    public static SupplyRow Of(string key, string name, Holder holder, long count) =>
        new()
        {
            Id = $"{key}\n{holder.Kind}\n{holder.Name}",
            Key = key,
            Name = name,
            HolderKind = holder.Kind,
            Holder = holder.Name,
            Count = count,
        };

    public Holder At() => new(HolderKind, Holder);
}

internal sealed class SupplyMapping : IEntityTypeConfiguration<SupplyRow>
{
    public void Configure(EntityTypeBuilder<SupplyRow> row)
    {
        row.ToTable("supply");
        row.HasKey(r => r.Id);
        row.HasIndex(r => new { r.Key, r.HolderKind });
        row.HasIndex(r => new { r.HolderKind, r.Holder });
        row.Property(r => r.HolderKind).HasConversion<KeptWord<HolderKind>>();
    }
}
