using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.Appliances;

/// <summary>Whom one signs in as at a machine; its secret is asked for apart.</summary>
/// <param name="Origin">Scheme, host and port it was given for.</param>
/// <param name="SecretFile">The file the secret is read from at each use; null where it is kept here.</param>
public sealed record MachineSignIn(string Origin, string Name, SignInWay Way, string? SecretFile, string By, DateTimeOffset At);

/// <summary>A certificate somebody said yes to.</summary>
public sealed record TrustedCertificate(ShownCertificate Certificate, string By, DateTimeOffset At);

/// <summary>A certificate a machine showed, that waits for somebody's yes.</summary>
public sealed record OfferedCertificate(ShownCertificate Certificate, DateTimeOffset At);

/// <summary>What is known of coming into one machine.</summary>
public sealed record MachineAccess(MachineSignIn? SignIn, TrustedCertificate? Trusted, OfferedCertificate? Offered);

/// <summary>What a sign-in that is given consists of; exactly one of the secret and its file.</summary>
public sealed record SignInGiven(string Origin, string Name, SignInWay Way, string? Secret, string? SecretFile);

/// <summary>Names, secrets and certificates of machines. A secret is kept under the service's own keys, and leaves only to its machine.</summary>
public sealed class MachineAccesses(IDbContextFactory<NailcrowDb> dbs, ISecretKeeper keeper, TimeProvider time)
{
    public async Task<MachineAccess> OfAsync(string asset, CancellationToken ct) =>
        await RowAsync(asset, ct) is { } row ? new(row.SignIn, row.Trusted, row.Offered) : new(null, null, null);

    /// <summary>Machines whose certificate waits for somebody's yes, by asset number.</summary>
    public async Task<IReadOnlyList<string>> WaitingAsync(string? after, int limit, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await (
            from access in db.MachineAccesses.AsNoTracking()
            where access.OfferedSha256 != null && (after == null || string.Compare(access.Asset, after) > 0)
            join machine in db.Appliances on access.Asset equals machine.Asset
            where machine.Address != null && machine.Address.StartsWith("https") // nobody asks it elsewhere for one
            orderby access.Asset
            select access.Asset
        )
            .Take(limit)
            .ToListAsync(ct);
    }

    /// <summary>All that is needed to call it.</summary>
    /// <param name="Secret">Null where it is in a file, or was kept under keys that are gone.</param>
    /// <param name="Stamp">Another one after each change of the sign-in.</param>
    public sealed record Opened(MachineAccess Access, string? Secret, string Stamp);

    public async Task<Opened?> OpenAsync(string asset, CancellationToken ct) =>
        await RowAsync(asset, ct) is { } row
            ? new(
                new(row.SignIn, row.Trusted, row.Offered),
                row.Secret is { } kept ? keeper.Open(kept) : null,
                row.Stamp?.ToString("N") ?? ""
            )
            : null;

    public Task GiveAsync(string asset, SignInGiven given, string by, CancellationToken ct) =>
        ChangeAsync(
            asset,
            row =>
            {
                (row.Origin, row.Name, row.Way, row.SecretFile) = (given.Origin, given.Name, given.Way, given.SecretFile);
                row.Secret = given.Secret is { } secret ? keeper.Protect(secret) : null;
                (row.GivenBy, row.GivenAt, row.Stamp) = (by, time.GetUtcNow(), Guid.NewGuid());
                return true;
            },
            ct
        );

    /// <returns>False where there was none.</returns>
    public Task<bool> TakeAwayAsync(string asset, CancellationToken ct) =>
        ChangeAsync(
            asset,
            row =>
            {
                var was = row.Name is not null;
                (row.Origin, row.Name, row.Way, row.SecretFile, row.Secret) = (null, null, null, null, null);
                (row.GivenBy, row.GivenAt, row.Stamp) = (null, null, null);
                return was;
            },
            ct
        );

    /// <summary>Notes that a machine showed a certificate which nobody said yes to; the one it showed before is forgotten.</summary>
    public async Task OfferAsync(string asset, ShownCertificate shown, CancellationToken ct)
    {
        // Each look meets it again, and most looks write nothing.
        if ((await RowAsync(asset, ct))?.OfferedSha256 == shown.Sha256)
            return;
        await ChangeAsync(
            asset,
            row =>
            {
                (row.OfferedSha256, row.OfferedSubject) = (shown.Sha256, shown.Subject);
                (row.OfferedFrom, row.OfferedUntil, row.OfferedAt) = (shown.From, shown.Until, time.GetUtcNow());
                return true;
            },
            ct
        );
    }

    /// <summary>The machine shows one that is known again: nothing waits for a yes any more.</summary>
    public Task OfferNoMoreAsync(string asset, CancellationToken ct) =>
        ChangeAsync(
            asset,
            row =>
            {
                row.ForgetOffered();
                return true;
            },
            ct
        );

    /// <summary>Takes the certificate that waits as the machine's own, if it still is the one that somebody looked at.</summary>
    /// <param name="sha256">Its fingerprint: 64 lower-case hexadecimal digits.</param>
    /// <returns>False where another one waits by now, or none.</returns>
    public Task<bool> TrustAsync(string asset, string sha256, string by, CancellationToken ct) =>
        ChangeAsync(
            asset,
            row =>
            {
                if (row.OfferedSha256 != sha256)
                    return false;
                (row.TrustedSha256, row.TrustedSubject) = (row.OfferedSha256, row.OfferedSubject);
                (row.TrustedFrom, row.TrustedUntil) = (row.OfferedFrom, row.OfferedUntil);
                (row.TrustedBy, row.TrustedAt) = (by, time.GetUtcNow());
                row.ForgetOffered();
                return true;
            },
            ct
        );

    private async Task<MachineAccessRow?> RowAsync(string asset, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await One(db, asset);
    }

    // Compiled once: each look at a machine asks it.
    private static readonly Func<NailcrowDb, string, Task<MachineAccessRow?>> One = EF.CompileAsyncQuery(
        (NailcrowDb db, string asset) => db.MachineAccesses.AsNoTracking().FirstOrDefault(r => r.Asset == asset)
    );

    /// <param name="change">Says whether there is anything to keep.</param>
    private async Task<bool> ChangeAsync(string asset, Func<MachineAccessRow, bool> change, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct); // held from the beginning: nobody changes it between
        var known = await db.MachineAccesses.FirstOrDefaultAsync(r => r.Asset == asset, ct);
        var row = known ?? new() { Asset = asset };
        if (!change(row))
            return false;
        if (known is null)
            db.MachineAccesses.Add(row);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        return true;
    }
}
