using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Moving;

/// <summary>Why nobody works on a database that holds a record.</summary>
internal enum NotHere
{
    /// <summary>It is being filled from another place, and holds a part so far.</summary>
    Filling,

    /// <summary>The record has gone to another place, and is written there.</summary>
    Left,
}

/// <summary>That the record is not here, or not whole yet: one row at most, and none where it is.</summary>
internal sealed class RecordPlaceRow
{
    public const int Only = 1;

    public required int Id { get; init; }
    public required NotHere Why { get; init; }

    /// <summary>Where it comes from, or has gone to.</summary>
    public required string Place { get; init; }
    public required DateTimeOffset At { get; init; }
}

internal sealed class RecordPlaceMapping : IEntityTypeConfiguration<RecordPlaceRow>
{
    public void Configure(EntityTypeBuilder<RecordPlaceRow> row)
    {
        row.ToTable("record_place");
        row.HasKey(r => r.Id);
        row.Property(r => r.Id).ValueGeneratedNever();
        row.Property(r => r.Why).HasConversion<KeptWord<NotHere>>();
    }
}

/// <summary>
/// How many numbers of a table stand for no row that ever was. A file gives each number once; a server leaves holes where a
/// transaction was taken back, and they come along when its record moves to a file.
/// </summary>
internal sealed class NeverGivenRow
{
    public required string Name { get; init; }
    public required long Numbers { get; init; }
}

internal static class NeverGivenTable
{
    public static void MapNeverGiven(this ModelBuilder builder) =>
        builder.Entity<NeverGivenRow>().ToTable("never_given").HasKey(r => r.Name);
}
