using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.People.SecondFactor;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.People.SigningIn;

/// <summary>A passkey as its owner sees it.</summary>
/// <param name="Id">Of the credential, as WebAuthn has it.</param>
public sealed record KeptPasskey(byte[] Id, string Name, DateTimeOffset Since);

/// <summary>What somebody shows beside a password.</summary>
/// <param name="CodesSince">Since when they have one-time codes; null where they have none.</param>
/// <param name="RecoveryLeft">Recovery codes that were not used yet.</param>
public sealed record FactorsOf(DateTimeOffset? CodesSince, IReadOnlyList<KeptPasskey> Passkeys, int RecoveryLeft)
{
    public bool Any => CodesSince is not null || Passkeys.Count > 0;
}

/// <summary>
/// Second factors. Each change is written with its line of the security log; a key of one-time codes is kept under the service's own
/// keys, and recovery codes only as what they hash to.
/// </summary>
public sealed class SecondFactors(IDbContextFactory<NailcrowDb> dbs, ISecretKeeper keeper, TimeProvider time)
{
    // Long enough to find the telephone; a key that lay on a screen for longer is offered anew.
    private static readonly TimeSpan OfferLasts = TimeSpan.FromMinutes(15);

    public async Task<FactorsOf> OfAsync(string person, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await OfAsync(db, person, ct);
    }

    /// <summary>The names of those who have one.</summary>
    public async Task<IReadOnlySet<string>> WhoAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var codes = await db.SecondFactors.AsNoTracking().Where(f => f.CodeKey != null).Select(f => f.Person).ToListAsync(ct);
        var passkeys = await PasskeysOf(db).Select(k => k.Person).Distinct().ToListAsync(ct);
        return codes.Concat(passkeys).ToHashSet(StringComparer.Ordinal);
    }

    /// <summary>Keeps a key that is shown to them now, until a code of it comes back.</summary>
    public Task OfferCodesAsync(string person, byte[] key, CancellationToken ct) =>
        ChangeAsync(
            person,
            (_, row) =>
            {
                (row.OfferedKey, row.OfferedAt) = (keeper.Protect(Convert.ToBase64String(key)), time.GetUtcNow());
                return Task.FromResult(true);
            },
            ct
        );

    /// <summary>The device shows what we reckon: from now on it is asked for.</summary>
    /// <returns>False where the code is another one, or nothing is offered.</returns>
    public Task<bool> TakeCodesAsync(Doer by, string person, string typed, CancellationToken ct) =>
        ChangeAsync(
            person,
            async (db, row) =>
            {
                var now = time.GetUtcNow();
                if (row.OfferedAt is not { } at || now - at > OfferLasts || Opened(row.OfferedKey) is not { } key)
                    return false;
                if (OneTimeCode.Taken(key, typed, now, 0) is not { } step)
                    return false;
                (row.CodeKey, row.CodesSince, row.LastStep) = (row.OfferedKey, now, step);
                (row.OfferedKey, row.OfferedAt) = (null, null);
                await SecurityLog.AddAsync(db, by, SecurityEvent.SecondFactorSetUp, null, "one-time codes", now, ct);
                return true;
            },
            ct
        );

    /// <summary>Whether this is a code of theirs that opens something now; it opens nothing again.</summary>
    public Task<bool> ShowCodeAsync(string person, string typed, CancellationToken ct) =>
        ChangeAsync(
            person,
            (_, row) =>
            {
                if (Opened(row.CodeKey) is not { } key || OneTimeCode.Taken(key, typed, time.GetUtcNow(), row.LastStep) is not { } step)
                    return Task.FromResult(false);
                row.LastStep = step;
                return Task.FromResult(true);
            },
            ct
        );

    public async Task<byte[]?> RecoverySaltAsync(string person, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.SecondFactors.AsNoTracking().Where(f => f.Person == person).Select(f => f.RecoverySalt).FirstOrDefaultAsync(ct);
    }

    /// <summary>Whether a recovery code that hashes to this is left; it is not any more then.</summary>
    public Task<bool> ShowRecoveryAsync(Doer by, string hash, CancellationToken ct) =>
        ChangeAsync(
            by.Name,
            async (db, row) =>
            {
                var left = row.RecoveryHashes.Split(',', StringSplitOptions.RemoveEmptyEntries).ToList();
                if (!left.Remove(hash))
                    return false;
                row.RecoveryHashes = string.Join(',', left);
                await SecurityLog.AddAsync(db, by, SecurityEvent.RecoveryCodeUsed, null, $"{left.Count} left", time.GetUtcNow(), ct);
                return true;
            },
            ct
        );

    /// <summary>Other recovery codes; those before are good for nothing.</summary>
    public Task PutRecoveryAsync(Doer by, byte[] salt, IReadOnlyList<string> hashes, CancellationToken ct) =>
        ChangeAsync(
            by.Name,
            async (db, row) =>
            {
                (row.RecoverySalt, row.RecoveryHashes) = (salt, string.Join(',', hashes));
                await SecurityLog.AddAsync(db, by, SecurityEvent.RecoveryCodesMade, null, null, time.GetUtcNow(), ct);
                return true;
            },
            ct
        );

    /// <returns>False where they have none.</returns>
    public Task<bool> EndCodesAsync(Doer by, CancellationToken ct) =>
        ChangeAsync(
            by.Name,
            async (db, row) =>
            {
                if (row.CodeKey is null)
                    return false;
                (row.CodeKey, row.CodesSince) = (null, null);
                await SecurityLog.AddAsync(db, by, SecurityEvent.SecondFactorEnded, null, "one-time codes", time.GetUtcNow(), ct);
                await WithoutAnyAsync(db, row, ct);
                return true;
            },
            ct
        );

    public async Task AddPasskeyAsync(Doer by, UserPasskeyInfo passkey, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        var owner = await db.Users.AsNoTracking().Where(p => p.UserName == by.Name).Select(p => p.Id).FirstAsync(ct);
        db.UserPasskeys.Add(Row(owner, passkey));
        await SecurityLog.AddAsync(db, by, SecurityEvent.SecondFactorSetUp, null, $"the passkey '{passkey.Name}'", time.GetUtcNow(), ct);
        await transaction.CommitAsync(ct);
    }

    /// <returns>False where none of theirs has this id.</returns>
    public Task<bool> EndPasskeyAsync(Doer by, byte[] id, CancellationToken ct) =>
        ChangeAsync(
            by.Name,
            async (db, row) =>
            {
                var passkey = (await PasskeysOf(db).Where(k => k.Person == by.Name).Select(k => k.Row).ToListAsync(ct)).Find(k =>
                    k.CredentialId.SequenceEqual(id)
                );
                if (passkey is null)
                    return false;
                db.UserPasskeys.Remove(passkey);
                var told = $"the passkey '{passkey.Data.Name}'";
                await SecurityLog.AddAsync(db, by, SecurityEvent.SecondFactorEnded, null, told, time.GetUtcNow(), ct);
                await WithoutAnyAsync(db, row, ct);
                return true;
            },
            ct
        );

    /// <summary>Somebody has lost theirs: all of them go, and every sign-in that they were good for.</summary>
    /// <returns>False where they had none.</returns>
    public Task<bool> TakeAwayAsync(Doer by, string person, CancellationToken ct) =>
        ChangeAsync(
            person,
            async (db, row) =>
            {
                if (!(await OfAsync(db, person, ct)).Any)
                    return false;
                await ForgetAsync(db, person, ct);
                db.Entry(row).State = EntityState.Detached; // it is gone
                var now = time.GetUtcNow();
                await Sessions.EndAllAsync(db.Sessions.Where(s => s.Person == person), now, ct);
                await SecurityLog.AddAsync(db, by, SecurityEvent.SecondFactorTakenAway, person, null, now, ct);
                return true;
            },
            ct
        );

    /// <summary>All that somebody shows beside a password, within whatever else is changed about them.</summary>
    internal static async Task ForgetAsync(NailcrowDb db, string person, CancellationToken ct)
    {
        await db.SecondFactors.Where(f => f.Person == person).ExecuteDeleteAsync(ct);
        var owner = await db.Users.AsNoTracking().Where(p => p.UserName == person).Select(p => p.Id).FirstOrDefaultAsync(ct);
        await db.UserPasskeys.Where(k => k.UserId == owner).ExecuteDeleteAsync(ct);
    }

    private static async Task<FactorsOf> OfAsync(NailcrowDb db, string person, CancellationToken ct)
    {
        var row = await db.SecondFactors.AsNoTracking().FirstOrDefaultAsync(f => f.Person == person, ct);
        var passkeys = await PasskeysOf(db).AsNoTracking().Where(k => k.Person == person).Select(k => k.Row).ToListAsync(ct);
        return new(
            row?.CodeKey is null ? null : row.CodesSince,
            [.. passkeys.OrderBy(k => k.Data.CreatedAt).Select(k => new KeptPasskey(k.CredentialId, k.Data.Name ?? "", k.Data.CreatedAt))],
            row?.RecoveryHashes.Split(',', StringSplitOptions.RemoveEmptyEntries).Length ?? 0
        );
    }

    /// <summary>Recovery codes stand in for a second factor; without one they would be another password.</summary>
    private static async Task WithoutAnyAsync(NailcrowDb db, SecondFactorRow row, CancellationToken ct)
    {
        await db.SaveChangesAsync(ct);
        if (!(await OfAsync(db, row.Person, ct)).Any)
            (row.RecoverySalt, row.RecoveryHashes) = (null, "");
    }

    private static IQueryable<Owned> PasskeysOf(NailcrowDb db) =>
        db.UserPasskeys.Join(db.Users, k => k.UserId, p => p.Id, (k, p) => new Owned { Person = p.UserName ?? "", Row = k });

    private sealed class Owned
    {
        public required string Person { get; init; }
        public required IdentityUserPasskey<string> Row { get; init; }
    }

    private static IdentityUserPasskey<string> Row(string owner, UserPasskeyInfo passkey) =>
        new()
        {
            UserId = owner,
            CredentialId = passkey.CredentialId,
            Data = new()
            {
                PublicKey = passkey.PublicKey,
                Name = passkey.Name,
                CreatedAt = passkey.CreatedAt,
                SignCount = passkey.SignCount,
                Transports = passkey.Transports,
                IsUserVerified = passkey.IsUserVerified,
                IsBackupEligible = passkey.IsBackupEligible,
                IsBackedUp = passkey.IsBackedUp,
                AttestationObject = passkey.AttestationObject,
                ClientDataJson = passkey.ClientDataJson,
            },
        };

    private byte[]? Opened(string? kept) => kept is not null && keeper.Open(kept) is { } key ? Convert.FromBase64String(key) : null;

    /// <param name="change">Says whether there is anything to keep.</param>
    private async Task<bool> ChangeAsync(string person, Func<NailcrowDb, SecondFactorRow, Task<bool>> change, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct); // held from the beginning: a code opens one door, once
        var known = await db.SecondFactors.FirstOrDefaultAsync(f => f.Person == person, ct);
        var row = known ?? new() { Person = person };
        if (!await change(db, row))
            return false;
        if (known is null && db.Entry(row).State == EntityState.Detached && !string.IsNullOrEmpty(row.OfferedKey + row.RecoveryHashes))
            db.SecondFactors.Add(row);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        return true;
    }
}
