using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.Appliances;

/// <summary>A drive the firm knows of: in a bay, or in a depot. Where the journal knows better, the journal counts.</summary>
internal sealed class DriveRow
{
    public required string Serial { get; init; }

    /// <summary>The serial backwards, so that its last characters are found by the index.</summary>
    public required string SerialReversed { get; init; }
    public required string Model { get; init; }
    public required long Bytes { get; init; }
    public string? Asset { get; init; }
    public string? Bay { get; init; }
    public string? Depot { get; init; }
    public int? Hours { get; init; }
    public string? UsedIn { get; init; }
}

internal sealed class DriveMapping : IEntityTypeConfiguration<DriveRow>
{
    public void Configure(EntityTypeBuilder<DriveRow> row)
    {
        row.ToTable("drive");
        row.HasKey(r => r.Serial);
        row.HasIndex(r => r.SerialReversed);
        row.HasIndex(r => new { r.Asset, r.Bay });
        row.HasIndex(r => r.Depot);
    }
}

/// <summary>What a maker sells under one name, as JSON.</summary>
internal sealed class DriveModelRow : IKeptAsJson
{
    public required string Id { get; init; }
    public required string Body { get; set; }
}

internal sealed class DriveModelMapping : IEntityTypeConfiguration<DriveModelRow>
{
    public void Configure(EntityTypeBuilder<DriveModelRow> row) => row.ToTable("drive_model").HasKey(r => r.Id);
}

/// <summary>One line of a maker's list of what is qualified.</summary>
internal sealed class QualifiedRow
{
    public required string ApplianceModel { get; init; }
    public required string DriveModel { get; init; }

    /// <summary>What happens with it, where it is known not to work; empty or null where it works.</summary>
    public string? NotBecause { get; set; }
}

internal sealed class QualifiedMapping : IEntityTypeConfiguration<QualifiedRow>
{
    public void Configure(EntityTypeBuilder<QualifiedRow> row) =>
        row.ToTable("qualified").HasKey(r => new { r.ApplianceModel, r.DriveModel });
}
