using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.People;

/// <summary>Passkeys are the framework's own rows. It leaves them out of a context's model unless all of its tables are named its way.</summary>
internal sealed class PasskeyMapping : IEntityTypeConfiguration<IdentityUserPasskey<string>>
{
    // As long as a credential's id may be (W3C Web Authentication, section 4), in bytes.
    private const int LongestId = 1023;

    public void Configure(EntityTypeBuilder<IdentityUserPasskey<string>> row)
    {
        row.ToTable("passkey");
        row.HasKey(k => k.CredentialId);
        row.Property(k => k.CredentialId).HasMaxLength(LongestId);
        row.OwnsOne(k => k.Data).ToJson();
        row.HasOne<Person>().WithMany().HasForeignKey(k => k.UserId).IsRequired();
    }
}
