using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.People;

/// <summary>A key that a script acts with in somebody's name. Its secret is kept as a hash alone.</summary>
internal sealed class ScriptKeyRow
{
    public required Guid Id { get; init; }
    public required string Person { get; init; }
    public required string Name { get; init; }
    public required string Hash { get; init; }

    /// <summary>Its roles in words, as they were given; what the person has lost since, it has lost too.</summary>
    public required string RoleWords { get; init; }
    public required bool ReadOnly { get; init; }
    public required DateTimeOffset Since { get; init; }
    public required DateTimeOffset Until { get; init; }
    public DateTimeOffset? LastUsed { get; set; }
    public DateTimeOffset? EndedAt { get; set; }
}

internal sealed class ScriptKeyMapping : IEntityTypeConfiguration<ScriptKeyRow>
{
    public void Configure(EntityTypeBuilder<ScriptKeyRow> row)
    {
        row.ToTable("script_key");
        row.HasKey(r => r.Id);
        row.Property(r => r.Id).ValueGeneratedNever();
        row.HasIndex(r => new { r.Person, r.Since });
    }
}
