using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Terms;
using Nailcrow.Store.Rows;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Returns.Ledger;

/// <summary>Where one part is now. A projection: it can be made again from the ledger.</summary>
internal sealed class PartRow
{
    public required string Serial { get; init; }

    /// <summary>The serial backwards, so that its last characters are found by the index.</summary>
    public required string SerialReversed { get; init; }

    /// <summary>How the serial looks on a worn label; null where a release told the part that did not know of it.</summary>
    public string? Looks { get; init; }
    public required string Model { get; init; }
    public required long Bytes { get; init; }
    public int? Hours { get; init; }
    public required HolderKind HolderKind { get; init; }
    public required string Holder { get; init; }
    public string? Shelf { get; init; }

    /// <summary>The machine, where it is in a bay of one.</summary>
    public string? Asset { get; init; }
    public required DateTimeOffset Since { get; init; }

    /// <summary>The ticket that moved it last; null where stores did.</summary>
    public long? Ticket { get; init; }
    public long? ReservedFor { get; init; }

    /// <summary>To whom it is on its way, and when it has to be there.</summary>
    public string? Going { get; init; }
    public DateOnly? DueBy { get; init; }

    /// <summary>The machine whose data may still be on it.</summary>
    public string? UnwipedFrom { get; init; }

    /// <summary>Why it came back, where nobody has looked at it since; null where nobody has to.</summary>
    public string? ToInspect { get; init; }

    /// <summary>Why it lies apart from all stock in its depot; null for what lies there as a part.</summary>
    public SetApart? Apart { get; init; }

    /// <returns>Null where it is set aside or wiped and nobody has said where it is.</returns>
    public static PartRow? Of(PartLine line) =>
        line.Last is not { To: { } holder } last
            ? null
            : new()
            {
                Serial = line.Serial,
                SerialReversed = Projecting.Reversed(line.Serial) ?? "",
                Looks = SerialComparison.Looks(line.Serial),
                Model = line.Part?.Model ?? "",
                Bytes = line.Part?.Bytes ?? 0,
                Hours = line.Part?.Hours,
                HolderKind = line.Holder?.Kind ?? holder.Kind,
                Holder = line.Holder?.Name ?? holder.Name,
                Shelf = line.Holder?.Shelf,
                Asset = last.Asset,
                Since = last.At,
                Ticket = last.Ticket,
                ReservedFor = line.ReservedFor.Count > 0 ? line.ReservedFor[0] : null,
                Going = line.Going?.To.ToString(),
                DueBy = line.Going?.DueBy,
                UnwipedFrom = line.UnwipedFrom,
                Apart = line.Apart,
                ToInspect = line.ToInspect is { } came ? came.Reason ?? "" : null,
            };
}

internal sealed class PartMapping : IEntityTypeConfiguration<PartRow>
{
    public void Configure(EntityTypeBuilder<PartRow> row)
    {
        row.ToTable("part");
        row.HasKey(r => r.Serial);
        row.HasIndex(r => new
        {
            r.HolderKind,
            r.Holder,
            r.Model,
            r.Serial,
        });
        row.HasIndex(r => r.ReservedFor);
        row.HasIndex(r => r.SerialReversed);
        row.HasIndex(r => r.Looks);
        row.HasIndex(r => new { r.DueBy, r.Serial }); // many are due on one day
        row.HasIndex(r => new
        {
            r.HolderKind,
            r.ReservedFor,
            r.Bytes,
        });
        row.HasIndex(r => new { r.HolderKind, r.Since });
        row.HasIndex(r => new { r.ToInspect, r.Since });
        row.HasIndex(r => new { r.Apart, r.Since });
        row.Property(r => r.HolderKind).HasConversion<KeptWord<HolderKind>>();
        row.Property(r => r.Apart).HasConversion<KeptWord<SetApart>>();
    }
}
