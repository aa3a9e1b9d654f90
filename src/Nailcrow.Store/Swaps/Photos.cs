using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.Swaps;

/// <summary>A picture's bytes. Beside the journal, which keeps their hash.</summary>
internal sealed class PhotoRow
{
    public required Guid Id { get; init; }
    public required long Ticket { get; init; }
    public required string MediaType { get; init; }
    public required byte[] Content { get; init; }
}

internal sealed class PhotoMapping : IEntityTypeConfiguration<PhotoRow>
{
    public void Configure(EntityTypeBuilder<PhotoRow> row)
    {
        row.ToTable("photo");
        row.HasKey(r => r.Id);
        row.Property(r => r.Id).ValueGeneratedNever();
        row.HasIndex(r => r.Ticket);
    }
}

internal static class PhotoRows
{
    /// <summary>
    /// The bytes go, and are written over in the file: who decided it is in the journal by now, or the database refuses it. Part of the
    /// transaction that is open.
    /// </summary>
    public static async Task LetGoAsync(NailcrowDb db, Guid id)
    {
        await db.SaveChangesAsync(); // one that came in the same breath
        await db.Product.WriteOverAsync(db, begin: true);
        await db.Photos.Where(p => p.Id == id).ExecuteDeleteAsync();
        await db.Product.WriteOverAsync(db, begin: false);
    }
}

/// <summary>Pictures that engineers took, by their ids.</summary>
public sealed class Photos(IDbContextFactory<NailcrowDb> dbs)
{
    public async Task<(string MediaType, byte[] Content)?> FindAsync(long ticket, Guid id, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Photos.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id && p.Ticket == ticket, ct) is { } row
            ? (row.MediaType, row.Content)
            : null;
    }
}
