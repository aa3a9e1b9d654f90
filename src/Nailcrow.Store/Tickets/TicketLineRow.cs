using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Tickets;

/// <summary>What lists show of a ticket. A projection: it can be made again from the journal.</summary>
internal sealed class TicketLineRow
{
    public required long Number { get; init; }
    public required string Asset { get; set; }
    public required string Model { get; set; }
    public required string Customer { get; set; }
    public required string Site { get; set; }
    public required string Symptom { get; set; }
    public string? Bay { get; set; }
    public string? Serial { get; set; }
    public required Stage Stage { get; set; }

    /// <summary>At rest: nobody has anything to do on it. A closed ticket that something late came in on is not.</summary>
    public required bool Ended { get; set; }
    public int? Margin { get; set; }

    /// <summary>What its danger weighs, <see cref="Priority.Weight"/>; worst first begins with the heaviest.</summary>
    public double Urgency { get; set; }

    /// <summary>Due first by it: the next promise's ticks, and what has none last.</summary>
    public long DueOrder { get; set; }
    public required string Danger { get; set; }
    public string? Engineer { get; set; }
    public required string NextWho { get; set; }
    public required string Next { get; set; }
    public required Move NextMove { get; set; }
    public string? HoldReason { get; set; }
    public int? AtWorst { get; set; }
    public required SwapHelp Help { get; set; }
    public DateTimeOffset? DueAt { get; set; }
    public DeadlineKind? Due { get; set; }
    public DateTimeOffset? VisitFrom { get; set; }
    public DateTimeOffset? VisitTo { get; set; }

    /// <summary>The array it is about, where known: alerts of one array are one fault.</summary>
    public string? Array { get; set; }
    public required bool Escalated { get; set; }
    public required bool Watched { get; set; }
    public required DateTimeOffset ReceivedAt { get; set; }
    public required DateTimeOffset ChangedAt { get; set; }
    public required long Head { get; set; }
    public required string HeadHash { get; set; }

    /// <summary>The rules it was told by. Where they are not today's, the line and all that is told with it are told anew.</summary>
    public required int Rules { get; set; }
}

internal sealed class TicketLineMapping : IEntityTypeConfiguration<TicketLineRow>
{
    public void Configure(EntityTypeBuilder<TicketLineRow> row)
    {
        row.ToTable("ticket_line");
        row.HasKey(r => r.Number);
        row.Property(r => r.Number).ValueGeneratedNever();
        row.Property(r => r.Stage).HasConversion<KeptWord<Stage>>();
        row.Property(r => r.NextMove).HasConversion<KeptWord<Move>>();
        row.Property(r => r.Help).HasConversion<KeptWord<SwapHelp>>();
        row.Property(r => r.Due).HasConversion<KeptWord<DeadlineKind>>();
        // Every list is read newest first, so each index ends with the number.
        row.HasIndex(r => new { r.Ended, r.Number });
        row.HasIndex(r => new { r.Stage, r.Number });
        row.HasIndex(r => new
        {
            r.Engineer,
            r.Ended,
            r.Number,
        });
        row.HasIndex(r => new { r.Asset, r.Number });
        row.HasIndex(r => new { r.Serial, r.Number });
        // The parts of what comes first, of all and of what waits for somebody; and due first, of those that are open or ended and of all.
        row.HasIndex(r => new
        {
            r.Urgency,
            r.DueOrder,
            r.Number,
        });
        row.HasIndex(r => new
        {
            r.NextWho,
            r.Urgency,
            r.DueOrder,
            r.Number,
        });
        row.HasIndex(r => new
        {
            r.Ended,
            r.DueOrder,
            r.Number,
        });
        row.HasIndex(r => new { r.DueOrder, r.Number });
        row.HasIndex(r => r.Watched);
        row.HasIndex(r => r.Rules);
        row.HasIndex(r => new { r.Engineer, r.VisitFrom });
    }
}
