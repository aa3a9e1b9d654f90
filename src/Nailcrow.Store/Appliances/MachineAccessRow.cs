using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Appliances;

/// <summary>How one machine is come into: whom one signs in as, and which certificate it may show.</summary>
internal sealed class MachineAccessRow
{
    public required string Asset { get; init; }

    /// <summary>Scheme, host and port the sign-in was given for.</summary>
    public string? Origin { get; set; }
    public string? Name { get; set; }

    /// <summary>Protected; null where it is read from a file.</summary>
    public string? Secret { get; set; }
    public string? SecretFile { get; set; }
    public SignInWay? Way { get; set; }
    public string? GivenBy { get; set; }
    public DateTimeOffset? GivenAt { get; set; }

    /// <summary>Another one each time it is given.</summary>
    public Guid? Stamp { get; set; }
    public string? TrustedSha256 { get; set; }
    public string? TrustedSubject { get; set; }
    public DateTimeOffset? TrustedFrom { get; set; }
    public DateTimeOffset? TrustedUntil { get; set; }
    public string? TrustedBy { get; set; }
    public DateTimeOffset? TrustedAt { get; set; }
    public string? OfferedSha256 { get; set; }
    public string? OfferedSubject { get; set; }
    public DateTimeOffset? OfferedFrom { get; set; }
    public DateTimeOffset? OfferedUntil { get; set; }
    public DateTimeOffset? OfferedAt { get; set; }

    public MachineSignIn? SignIn =>
        (Origin, Name, Way, GivenBy, GivenAt) is ({ } origin, { } name, { } way, { } by, { } at)
            ? new(origin, name, way, SecretFile, by, at)
            : null;

    public TrustedCertificate? Trusted =>
        Certificate(TrustedSha256, TrustedSubject, TrustedFrom, TrustedUntil) is { } shown && (TrustedBy, TrustedAt) is ({ } by, { } at)
            ? new(shown, by, at)
            : null;

    public OfferedCertificate? Offered =>
        Certificate(OfferedSha256, OfferedSubject, OfferedFrom, OfferedUntil) is { } shown && OfferedAt is { } at ? new(shown, at) : null;

    public void ForgetOffered() => (OfferedSha256, OfferedSubject, OfferedFrom, OfferedUntil, OfferedAt) = (null, null, null, null, null);

    private static ShownCertificate? Certificate(string? sha256, string? subject, DateTimeOffset? from, DateTimeOffset? until) =>
        (sha256, subject, from, until) is ({ } print, { } of, { } since, { } to) ? new(print, of, since, to) : null;
}

internal sealed class MachineAccessMapping : IEntityTypeConfiguration<MachineAccessRow>
{
    public void Configure(EntityTypeBuilder<MachineAccessRow> row)
    {
        row.ToTable("machine_access");
        row.HasKey(r => r.Asset);
        // Few wait, of many machines.
        row.HasIndex(r => r.Asset).HasFilter("offered_sha256 IS NOT NULL").HasDatabaseName("ix_machine_access_waits");
        row.Property(r => r.Way).HasConversion<KeptWord<SignInWay>>();
        row.Ignore(r => r.SignIn).Ignore(r => r.Trusted).Ignore(r => r.Offered);
    }
}
