using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Terms;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.People.SigningIn;

/// <summary>A key as its owner sees it; its secret was shown once.</summary>
public sealed record KeptKey(
    Guid Id,
    string Name,
    IReadOnlyList<Role> Roles,
    bool ReadOnly,
    DateTimeOffset Since,
    DateTimeOffset Until,
    DateTimeOffset? LastUsed
);

/// <summary>Keys that scripts act with: a part of what their owner may, until a day, kept as hashes.</summary>
public sealed class ScriptKeys(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    // More is no overview any longer, and a script that makes one each time it runs is stopped by it.
    private const int MostEach = 20;

    /// <param name="hash">Of its secret; 64 hex digits.</param>
    public async Task<Parsed<KeptKey>> MakeAsync(Doer by, KeptKey key, string hash, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var now = time.GetUtcNow();
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        var good = await Good(db, by.Name, now).Select(k => k.Name).ToListAsync(ct);
        if (good.Contains(key.Name, StringComparer.OrdinalIgnoreCase))
            return new Parsed<KeptKey>.Refused($"There is a key '{key.Name}' already; end it first, or name this one otherwise.");
        if (good.Count >= MostEach)
            return new Parsed<KeptKey>.Refused($"{by.Name} has {MostEach} keys, which is the most there may be; end one first.");
        db.ScriptKeys.Add(
            new()
            {
                Id = key.Id,
                Person = by.Name,
                Name = key.Name,
                Hash = hash,
                RoleWords = RoleList.Text(key.Roles),
                ReadOnly = key.ReadOnly,
                Since = key.Since,
                Until = key.Until,
            }
        );
        await SecurityLog.AddAsync(db, by, SecurityEvent.KeyMade, key.Name, Told(key), now, ct);
        await transaction.CommitAsync(ct);
        return new Parsed<KeptKey>.Ok(key);
    }

    public async Task<IReadOnlyList<KeptKey>> OfAsync(string person, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var rows = await Good(db, person, time.GetUtcNow()).AsNoTracking().OrderBy(k => k.Name).ToListAsync(ct);
        return [.. rows.Select(k => new KeptKey(k.Id, k.Name, RoleList.Of(k.RoleWords), k.ReadOnly, k.Since, k.Until, k.LastUsed))];
    }

    /// <returns>False where none of theirs that is still good has this id.</returns>
    public async Task<bool> EndAsync(Doer by, string person, Guid id, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var now = time.GetUtcNow();
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        if (await Good(db, person, now).FirstOrDefaultAsync(k => k.Id == id, ct) is not { } key)
            return false;
        key.EndedAt = now;
        await SecurityLog.AddAsync(db, by, SecurityEvent.KeyEnded, key.Name, by.Name == person ? null : $"of {person}", now, ct);
        await transaction.CommitAsync(ct);
        return true;
    }

    /// <summary>
    /// Whoever has a key that ends soon is told, once of each, so that what works with it does not stand still on that day (OWASP ASVS
    /// 4.0.3, 2.3.3): two weeks before, or halfway where it does not live for four.
    /// </summary>
    public async Task RemindAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var now = time.GetUtcNow();
        var before = now + EndsSoon;
        var keys = await db
            .ScriptKeys.AsNoTracking()
            .Where(k => k.EndedAt == null && k.Until > now && k.Until <= before)
            .Where(k => db.Users.Any(p => p.UserName == k.Person && p.DisabledAt == null))
            .ToListAsync(ct);
        var due = keys.Where(k => now >= Later(k.Until - EndsSoon, k.Since + (k.Until - k.Since) / 2)).ToList();
        if (due.Count == 0)
            return;
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        var kind = Words.Of(SecurityEvent.KeyEndsSoon);
        var rows = await db.SecurityLines.AsNoTracking().Where(r => r.Kind == kind && r.At > now - EndsSoon).ToListAsync(ct);
        var told = rows.Select(r => SecurityText.Read(r.Seq, r.Text)).OfType<SecurityLine>().Select(l => (l.About, l.Detail)).ToHashSet();
        foreach (var key in due)
            if (told.Add((key.Person, Ends(key))))
                await SecurityLog.AddAsync(db, OfItself, SecurityEvent.KeyEndsSoon, key.Person, Ends(key), now, ct);
        await transaction.CommitAsync(ct);
    }

    private static readonly TimeSpan EndsSoon = TimeSpan.FromDays(14);

    private static readonly Doer OfItself = new(Actor.Service.Name, null);

    /// <summary>With its last day: what is good until a day is good until that day's end.</summary>
    private static string Ends(ScriptKeyRow key) =>
        string.Create(System.Globalization.CultureInfo.InvariantCulture, $"'{key.Name}' on {key.Until.AddDays(-1):yyyy-MM-dd}");

    private static DateTimeOffset Later(DateTimeOffset one, DateTimeOffset other) => one > other ? one : other;

    /// <summary>What whoever comes with it may do now; null where it was ended, has run out or never was.</summary>
    public async Task<StandsAs?> StandAsync(Guid id, string hash, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var now = time.GetUtcNow();
        var found = await db
            .ScriptKeys.AsNoTracking()
            .Where(k => k.Id == id && k.EndedAt == null && k.Until > now)
            .Join(db.Users.Where(p => p.DisabledAt == null), k => k.Person, p => p.UserName, (k, p) => new { Key = k, Person = p })
            .FirstOrDefaultAsync(ct);
        if (found is null || !SameHash(found.Key.Hash, hash))
            return null;
        var roles = RoleList.Of(found.Key.RoleWords).Intersect(found.Person.Roles());
        return new(found.Person.Name, found.Person.FullName, [.. roles], found.Person.MustChange, found.Key.ReadOnly);
    }

    internal static Task<int> EndAllAsync(NailcrowDb db, string person, DateTimeOffset now, CancellationToken ct) =>
        db
            .ScriptKeys.Where(k => k.Person == person && k.EndedAt == null)
            .ExecuteUpdateAsync(set => set.SetProperty(k => k.EndedAt, now), ct);

    private static IQueryable<ScriptKeyRow> Good(NailcrowDb db, string person, DateTimeOffset now) =>
        db.ScriptKeys.Where(k => k.Person == person && k.EndedAt == null && k.Until > now);

    private static bool SameHash(string one, string other) =>
        System.Security.Cryptography.CryptographicOperations.FixedTimeEquals(
            System.Text.Encoding.ASCII.GetBytes(one),
            System.Text.Encoding.ASCII.GetBytes(other)
        );

    private static string Told(KeptKey key) =>
        $"{(key.ReadOnly ? "reads only" : "reads and writes")}; {RoleList.Text(key.Roles)}; until {key.Until.AddDays(-1):yyyy-MM-dd}";
}
