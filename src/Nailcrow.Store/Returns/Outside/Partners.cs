using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Returns;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.Returns.Outside;

/// <summary>Carriers and makers whom the service can ask, and what it signs with when it does.</summary>
public sealed class Partners(IDbContextFactory<NailcrowDb> dbs, ISecretKeeper keeper)
{
    public async Task<IReadOnlyList<Partner>> AllAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var all = new List<Partner>();
        await foreach (var partner in All(db).WithCancellation(ct))
            all.Add(partner);
        return all;
    }

    // Compiled once: each look at a ticket asks it.
    private static readonly Func<NailcrowDb, IAsyncEnumerable<Partner>> All = EF.CompileAsyncQuery(
        (NailcrowDb db) => db.Partners.AsNoTracking().OrderBy(p => p.Name).Select(p => new Partner(p.Name, p.Kind, p.Address))
    );

    /// <summary>By name, in whatever case it is written; null where there is none of this kind.</summary>
    public async Task<Partner?> FindAsync(string name, PartnerKind kind, CancellationToken ct) =>
        (await AllAsync(ct)).FirstOrDefault(p => p.Kind == kind && p.Name.Equals(name.Trim(), StringComparison.OrdinalIgnoreCase));

    /// <summary>Which mail server carries a mail: of several each has its turn, try by try, so that one that is down keeps nothing back.</summary>
    /// <param name="tried">How often it was tried before; the first by name is tried first.</param>
    /// <returns>Null where there is none.</returns>
    public async Task<Partner?> OfMailAsync(int tried, CancellationToken ct)
    {
        var servers = (await AllAsync(ct)).Where(p => p.Kind == PartnerKind.Mail).ToList();
        return servers.Count == 0 ? null : servers[tried % servers.Count];
    }

    /// <returns>Null where it was kept under keys that are gone: it has to be given anew.</returns>
    public async Task<string?> SecretAsync(string name, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return (await db.Partners.AsNoTracking().FirstOrDefaultAsync(p => p.Name == name, ct)) is { } known
            ? keeper.Open(known.Secret)
            : null;
    }

    /// <summary>Adds one, or changes what is known of it.</summary>
    /// <param name="secret">Null to keep the one there is.</param>
    /// <returns>False where there is none to keep.</returns>
    public async Task<bool> PutAsync(Partner partner, string? secret, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var known = await db.Partners.AsNoTracking().FirstOrDefaultAsync(p => p.Name == partner.Name, ct);
        if ((secret is null ? known?.Secret : keeper.Protect(secret)) is not { } kept)
            return false;
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        await db.Partners.Where(p => p.Name == partner.Name).ExecuteDeleteAsync(ct);
        db.Partners.Add(
            new()
            {
                Name = partner.Name,
                Kind = partner.Kind,
                Address = partner.Address,
                Secret = kept,
            }
        );
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        return true;
    }

    /// <returns>False where there was none.</returns>
    public async Task<bool> RemoveAsync(string name, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Partners.Where(p => p.Name == name).ExecuteDeleteAsync(ct) > 0;
    }
}
