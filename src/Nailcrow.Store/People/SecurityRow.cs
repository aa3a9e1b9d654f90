using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.People;

/// <summary>One line of the security log, as it was written.</summary>
internal sealed class SecurityRow
{
    public long Seq { get; init; }
    public required DateTimeOffset At { get; init; }
    public required string By { get; init; }
    public required string Kind { get; init; }
    public required string Text { get; init; }
    public required string Hash { get; init; }
}

internal sealed class SecurityMapping : IEntityTypeConfiguration<SecurityRow>
{
    public void Configure(EntityTypeBuilder<SecurityRow> row)
    {
        row.ToTable("security_line");
        row.HasKey(r => r.Seq);
        row.HasIndex(r => new { r.By, r.Seq });
        row.HasIndex(r => new { r.Kind, r.Seq });
    }
}
