using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Returns;

/// <summary>The warranty of one drive, or of a model.</summary>
internal sealed class WarrantyRow
{
    /// <summary>"serial" or "model", and which.</summary>
    public required string Id { get; init; }
    public string? Serial { get; init; }

    /// <summary>The serial backwards, so that its last characters are found by the index.</summary>
    public string? SerialReversed { get; init; }
    public string? Model { get; init; }
    public required DateOnly Until { get; init; }
    public DateOnly? From { get; init; }
    public string? Terms { get; init; }

    /// <summary>The maker that answered; null for the firm's list.</summary>
    public string? Source { get; init; }
    public required DateTimeOffset SaidAt { get; init; }

    /// <summary>Between these lie the names of those of models, and no others.</summary>
    public const string Models = "model ";
    public const string ModelsEnd = "model!";

    public static string IdOf(string serial) => $"serial {serial}";

    public static WarrantyRow Of(KnownWarranty known) =>
        new()
        {
            Id = known.Serial is { } serial ? IdOf(serial) : Models + known.Model,
            Serial = known.Serial,
            SerialReversed = Projecting.Reversed(known.Serial),
            Model = known.Model,
            Until = known.Warranty.Until,
            From = known.Warranty.From,
            Terms = known.Warranty.Terms,
            Source = known.Source,
            SaidAt = known.SaidAt,
        };

    /// <summary>Some of those from before serials were kept backwards as well.</summary>
    /// <returns>Whether there may be more.</returns>
    internal static async Task<bool> TellBackwardsAsync(JournalConnection connection)
    {
        var without = connection.Db.Warranties.AsNoTracking().Where(w => w.Serial != null && w.SerialReversed == null);
        var some = await without.OrderBy(w => w.Id).Take(AtOnce).ToListAsync();
        foreach (var row in some)
            await connection.Rows<WarrantyRow>().UpsertAsync(Of(row.Read()));
        return some.Count == AtOnce;
    }

    private const int AtOnce = 1_000;

    public KnownWarranty Read() => new(Serial, Model, new(Until, From, Terms), Source, SaidAt);
}

internal sealed class WarrantyMapping : IEntityTypeConfiguration<WarrantyRow>
{
    public void Configure(EntityTypeBuilder<WarrantyRow> row)
    {
        row.ToTable("warranty").HasKey(r => r.Id);
        row.HasIndex(r => new { r.Until, r.Id });
        row.HasIndex(r => r.Model);
        row.HasIndex(r => r.Serial);
        row.HasIndex(r => r.SerialReversed);
    }
}
