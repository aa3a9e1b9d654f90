using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Returns.Outside;

/// <summary>One errand: what is to be said, to whom, and how far that is.</summary>
internal sealed class OutboxRow
{
    public required Guid Id { get; init; }
    public required ErrandKind Kind { get; init; }
    public required string Partner { get; init; }
    public required Guid About { get; init; }
    public required long Ticket { get; init; }
    public required DateTimeOffset WrittenAt { get; init; }
    public required ErrandState State { get; set; }

    /// <summary>When it is tried next; claimed until then while somebody tries.</summary>
    public DateTimeOffset? DueAt { get; set; }
    public int Tries { get; set; }

    /// <summary>What was said last: by the partner, or why they were not reached.</summary>
    public string? Says { get; set; }

    /// <summary>The carrier's number, whose events are asked for.</summary>
    public string? Label { get; set; }

    /// <summary>When the carrier is asked next what became of it; null where nothing more is expected.</summary>
    public DateTimeOffset? FollowAt { get; set; }

    public static OutboxRow Of(Errand errand, long ticket, DateTimeOffset now) =>
        new()
        {
            Id = errand.Id,
            Kind = errand.Kind,
            Partner = errand.To,
            About = errand.About,
            Ticket = ticket,
            WrittenAt = now,
            State = ErrandState.Waiting,
            DueAt = now,
        };

    public Errand Errand() => new(Id, Kind, Partner, About);
}

internal sealed class OutboxMapping : IEntityTypeConfiguration<OutboxRow>
{
    public void Configure(EntityTypeBuilder<OutboxRow> row)
    {
        row.ToTable("outbox");
        row.HasKey(r => r.Id);
        row.Property(r => r.Id).ValueGeneratedNever();
        row.Property(r => r.Kind).HasConversion<KeptWord<ErrandKind>>();
        row.Property(r => r.State).HasConversion<KeptWord<ErrandState>>();
        row.HasIndex(r => new { r.State, r.DueAt });
        row.HasIndex(r => new
        {
            r.State,
            r.WrittenAt,
            r.Id,
        });
        row.HasIndex(r => r.Ticket);
        row.HasIndex(r => r.FollowAt);
        row.HasIndex(r => r.Label);
    }
}
