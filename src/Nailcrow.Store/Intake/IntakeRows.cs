using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Store.Intake;

/// <summary>One message as it came in, and what became of it.</summary>
internal sealed class IntakeRow
{
    public required Guid Id { get; init; }
    public required DateTimeOffset ReceivedAt { get; init; }
    public required string Via { get; init; }
    public required string Sender { get; init; }
    public required string Text { get; init; }
    public string? App { get; init; }
    public required string Outcome { get; init; }
    public string? Rule { get; init; }
    public string? Asset { get; init; }
    public long? Ticket { get; init; }

    /// <summary>The alert as JSON until it has joined its ticket; null when there is nothing left to do.</summary>
    public string? Pending { get; init; }
}

internal sealed class IntakeMapping : IEntityTypeConfiguration<IntakeRow>
{
    public void Configure(EntityTypeBuilder<IntakeRow> row)
    {
        row.ToTable("intake");
        row.HasKey(r => r.Id);
        row.Property(r => r.Id).ValueGeneratedNever();
        row.HasIndex(r => new { r.Outcome, r.ReceivedAt });
    }
}

internal sealed class IntakeRuleRow : IKeptAsJson
{
    public required string Id { get; init; }
    public required string Body { get; set; }
}

internal sealed class IntakeRuleMapping : IEntityTypeConfiguration<IntakeRuleRow>
{
    public void Configure(EntityTypeBuilder<IntakeRuleRow> row) => row.ToTable("intake_rule").HasKey(r => r.Id);
}

/// <summary>Who may send signed events, with the secret they sign with.</summary>
internal sealed class EventSenderRow
{
    public required string Name { get; init; }
    public required string Secret { get; init; }
    public required DateTimeOffset AddedAt { get; init; }
}

internal sealed class EventSenderMapping : IEntityTypeConfiguration<EventSenderRow>
{
    public void Configure(EntityTypeBuilder<EventSenderRow> row) => row.ToTable("event_sender").HasKey(r => r.Name);
}
