using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.People;

/// <summary>One sign-in, from one device, until it is ended or runs out.</summary>
internal sealed class SessionRow
{
    public required Guid Id { get; init; }
    public required string Person { get; init; }
    public required DateTimeOffset Since { get; init; }
    public required DateTimeOffset Until { get; init; }
    public required DateTimeOffset LastSeen { get; set; }
    public required string Device { get; init; }
    public required string Address { get; init; }
    public DateTimeOffset? EndedAt { get; set; }

    /// <summary>A provider of sign-ins let them in, which looked at whatever it takes beside a password.</summary>
    public bool Elsewhere { get; init; }
}

internal sealed class SessionMapping : IEntityTypeConfiguration<SessionRow>
{
    public void Configure(EntityTypeBuilder<SessionRow> row)
    {
        row.ToTable("session");
        row.HasKey(r => r.Id);
        row.Property(r => r.Id).ValueGeneratedNever();
        row.HasIndex(r => new { r.Person, r.Since });
    }
}
