using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.People;

/// <summary>News of how somebody comes in, that has to go out by mail; gone once it went.</summary>
internal sealed class SignInLetterRow
{
    public required Guid Id { get; init; }
    public required string To { get; init; }
    public required string Says { get; init; }

    /// <summary>From where it was done, as an IP address.</summary>
    public string? Address { get; init; }
    public required DateTimeOffset At { get; init; }

    /// <summary>When it is tried next; claimed until then while somebody tries.</summary>
    public required DateTimeOffset DueAt { get; set; }
    public int Tries { get; set; }
}

internal sealed class SignInLetterMapping : IEntityTypeConfiguration<SignInLetterRow>
{
    public void Configure(EntityTypeBuilder<SignInLetterRow> row)
    {
        row.ToTable("sign_in_letter");
        row.HasKey(r => r.Id);
        row.Property(r => r.Id).ValueGeneratedNever();
        row.HasIndex(r => r.DueAt);
    }
}
