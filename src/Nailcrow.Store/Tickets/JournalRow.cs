using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Tickets.Journal;

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
    public required long ClockOffsetMs { get; init; }
    public required DateTimeOffset RecordedAt { get; init; }
    public required string By { get; init; }
    public required string Kind { get; init; }
    public required string Body { get; init; }
    public required string Hash { get; init; }

    public static JournalRow Of(Entry entry)
    {
        var body = JsonSerializer.SerializeToElement(entry.Body, JournalJson.Default.EntryBody);
        return new()
        {
            Ticket = entry.Ticket,
            Seq = entry.Seq,
            Id = entry.Id,
            At = entry.At,
            ClockOffsetMs = entry.ClockOffsetMs,
            RecordedAt = entry.RecordedAt,
            By = entry.By,
            Kind = body.GetProperty("kind").GetString()!, // the source generator writes the discriminator into every body
            Body = body.GetRawText(),
            Hash = entry.Hash,
        };
    }

    public Entry ToEntry()
    {
        try
        {
            var body = JsonSerializer.Deserialize(Body, JournalJson.Default.EntryBody);
            return new(Id, Ticket, Seq, At, ClockOffsetMs, RecordedAt, By, body ?? throw new JsonException("The body is null."), Hash);
        }
        catch (Exception e) when (e is JsonException or NotSupportedException)
        {
            throw new InvalidDataException($"Ticket {Ticket} entry {Seq} ({Kind}) cannot be read: {e.Message}", e);
        }
    }
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
