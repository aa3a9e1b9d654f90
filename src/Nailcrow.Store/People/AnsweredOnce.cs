using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Nailcrow.Store.People;

/// <summary>Something that was answered, as what it hashes to, until it is too old to be answered anyway.</summary>
internal sealed class AnsweredRow
{
    /// <summary>SHA-256 of what was answered, in hex.</summary>
    public required string Hash { get; init; }

    /// <summary>Seconds since 1970.</summary>
    public required long Until { get; init; }
}

internal sealed class AnsweredMapping : IEntityTypeConfiguration<AnsweredRow>
{
    public void Configure(EntityTypeBuilder<AnsweredRow> row)
    {
        row.ToTable("answered");
        row.HasKey(r => r.Hash);
        row.HasIndex(r => r.Until);
    }
}

/// <summary>What may be answered once: on whichever node it is, and also after a restart.</summary>
public sealed class AnsweredOnce(IDbContextFactory<NailcrowDb> dbs)
{
    /// <summary>Only what was right is kept, so nobody fills this by guessing.</summary>
    /// <returns>Whether this is the first time.</returns>
    public async Task<bool> IsFirstAsync(string asked, DateTimeOffset now, DateTimeOffset until, CancellationToken ct)
    {
        var hash = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(asked)));
        await using var db = await dbs.CreateDbContextAsync(ct);
        var old = now.ToUnixTimeSeconds();
        await db.Set<AnsweredRow>().Where(r => r.Until < old).ExecuteDeleteAsync(ct);
        return await db.Database.ExecuteSqlAsync(
                $"INSERT INTO answered (hash, until) VALUES ({hash}, {until.ToUnixTimeSeconds()}) ON CONFLICT DO NOTHING",
                ct
            ) == 1;
    }
}
