using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Store.Tickets;

/// <summary>One journal entry. Rows are only ever added; triggers refuse everything else.</summary>
internal sealed class JournalRow
{
    /// <summary>Order of arrival over all tickets; what a live listener resumes from.</summary>
    public long Position { get; init; }
    public required long Ticket { get; init; }
    public required long Seq { get; init; }
    public required Guid Id { get; init; }
    public required DateTimeOffset At { get; init; }
    public required DateTimeOffset RecordedAt { get; init; }
    public required string By { get; init; }
    public required string Kind { get; init; }

    /// <summary>The canonical text that was accepted. Nothing else here is hashed; the columns beside it are for finding.</summary>
    public required string Text { get; init; }
    public required string Hash { get; init; }

    public static JournalRow Of(Entry entry) =>
        new()
        {
            Ticket = entry.Ticket,
            Seq = entry.Seq,
            Id = entry.Id,
            At = entry.At,
            RecordedAt = entry.RecordedAt,
            By = entry.By,
            Kind = EntryKinds.Of(entry.Body),
            Text = entry.Text,
            Hash = entry.Hash,
        };

    public Entry ToEntry() => EntryReader.Read(new(Id, Ticket, Seq, At, RecordedAt, By, Kind, Text, Hash));
}

internal sealed class JournalMapping : IEntityTypeConfiguration<JournalRow>
{
    public void Configure(EntityTypeBuilder<JournalRow> row)
    {
        row.ToTable("journal");
        row.HasKey(r => r.Position);
        row.Property(r => r.Position).ValueGeneratedOnAdd();
        row.HasIndex(r => new { r.Ticket, r.Seq }).IsUnique(); // two writers of one ticket collide here, not in memory
        row.HasIndex(r => r.Id).IsUnique();
    }
}
