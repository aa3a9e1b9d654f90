using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.People;

/// <summary>What somebody shows beside a password, apart from passkeys.</summary>
internal sealed class SecondFactorRow
{
    public required string Person { get; init; }

    /// <summary>The key of their one-time codes, protected; null where they have none.</summary>
    public string? CodeKey { get; set; }
    public DateTimeOffset? CodesSince { get; set; }

    /// <summary>The step of the code that came in last (RFC 6238): none up to it opens anything again.</summary>
    public long LastStep { get; set; }

    /// <summary>A key that was offered, and counts once a code of it was shown.</summary>
    public string? OfferedKey { get; set; }
    public DateTimeOffset? OfferedAt { get; set; }
    public byte[]? RecoverySalt { get; set; }

    /// <summary>Hashes of the recovery codes that are left, in hex, separated by commas.</summary>
    public string RecoveryHashes { get; set; } = "";
}

internal sealed class SecondFactorMapping : IEntityTypeConfiguration<SecondFactorRow>
{
    public void Configure(EntityTypeBuilder<SecondFactorRow> row)
    {
        row.ToTable("second_factor");
        row.HasKey(r => r.Person);
    }
}
