using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.Procedures;

/// <summary>One published version, with the texts of all files it is built from. It is never changed, only withdrawn and brought back.</summary>
internal sealed class ProcedureVersionRow
{
    public required string Procedure { get; init; }
    public required string Version { get; init; }
    public required string Title { get; init; }
    public required string File { get; init; }

    /// <summary>File names to texts, as JSON.</summary>
    public required string Files { get; init; }
    public required int States { get; set; }

    /// <summary>Under which rules it was proved, as the prover counts them; 1 where it was before they were counted.</summary>
    public required int ProvedUnder { get; set; }
    public required DateTimeOffset PublishedAt { get; init; }
    public required string PublishedBy { get; init; }
    public DateTimeOffset? WithdrawnAt { get; set; }
    public string? WithdrawnBy { get; set; }
    public string? WithdrawnBecause { get; set; }

    /// <summary>Each time it was withdrawn and brought back before, by whom and why; null where it never was.</summary>
    public string? Earlier { get; set; }
}

internal sealed class ProcedureVersionMapping : IEntityTypeConfiguration<ProcedureVersionRow>
{
    public void Configure(EntityTypeBuilder<ProcedureVersionRow> row)
    {
        row.ToTable("procedure_version");
        row.HasKey(r => new { r.Procedure, r.Version });
        row.Property(r => r.ProvedUnder).HasDefaultValue(1);
    }
}
