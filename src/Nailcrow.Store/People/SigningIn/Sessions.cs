using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.People.SigningIn;

/// <summary>One sign-in as its owner sees it.</summary>
/// <param name="Address">Where it was signed in from, as an IP address.</param>
public sealed record KeptSession(Guid Id, string Person, DateTimeOffset Since, DateTimeOffset LastSeen, string Device, string Address);

/// <summary>What somebody who comes with a session or a key may do now.</summary>
/// <param name="ReadOnly">Only of a key.</param>
/// <param name="Elsewhere">A provider of sign-ins let them in, which asks for a second factor by its own rules.</param>
/// <param name="HasSecondFactor">They show something beside their password; true of a key, which was made by whoever had come in.</param>
public sealed record StandsAs(
    string Name,
    string FullName,
    IReadOnlyList<Role> Roles,
    bool MustChange,
    bool ReadOnly = false,
    bool HasSecondFactor = true,
    bool Elsewhere = false
);

/// <summary>Sign-ins that are kept, so that they can be seen, and ended before they run out.</summary>
public sealed class Sessions(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    // Nobody looks for a sign-in of last year; the security log has it.
    private static readonly TimeSpan KeptFor = TimeSpan.FromDays(30);

    /// <param name="elsewhere">By a provider of sign-ins.</param>
    public async Task<Guid> OpenAsync(
        string person,
        string device,
        string address,
        TimeSpan lasts,
        CancellationToken ct,
        bool elsewhere = false
    )
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var now = time.GetUtcNow();
        var id = Guid.CreateVersion7(now);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        db.Sessions.Add(
            new()
            {
                Id = id,
                Person = person,
                Since = now,
                Until = now + lasts,
                LastSeen = now,
                Device = device,
                Address = address,
                Elsewhere = elsewhere,
            }
        );
        var how = elsewhere ? $"{device}, by way of a provider" : device;
        await SecurityLog.AddAsync(db, new(person, address), SecurityEvent.SignedIn, null, how, now, ct);
        await db.Sessions.Where(s => s.Person == person && s.Until < now - KeptFor).ExecuteDeleteAsync(ct);
        await transaction.CommitAsync(ct);
        return id;
    }

    /// <summary>What whoever comes with it may do now; null where it was ended, has run out or never was.</summary>
    public async Task<StandsAs?> StandAsync(Guid id, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var now = time.GetUtcNow();
        await foreach (var who in Standing(db, id, now).WithCancellation(ct))
            return new(
                who.Person.Name,
                who.Person.FullName,
                who.Person.Roles(),
                who.Person.MustChange && !who.Elsewhere, // the password they were given is nothing to whoever came in without one
                HasSecondFactor: who.HasSecondFactor,
                Elsewhere: who.Elsewhere
            );
        return null;
    }

    // Compiled once: it is asked of everybody who is in, every few seconds.
    private static readonly Func<NailcrowDb, Guid, DateTimeOffset, IAsyncEnumerable<Who>> Standing = EF.CompileAsyncQuery(
        (NailcrowDb db, Guid id, DateTimeOffset now) =>
            db
                .Sessions.Where(s => s.Id == id && s.EndedAt == null && s.Until > now)
                .Join(db.Users, s => s.Person, p => p.UserName, (s, p) => new { s.Elsewhere, Person = p })
                .Where(s => s.Person.DisabledAt == null)
                .Select(s => new Who
                {
                    Person = s.Person,
                    Elsewhere = s.Elsewhere,
                    HasSecondFactor =
                        db.SecondFactors.Any(f => f.Person == s.Person.UserName && f.CodeKey != null)
                        || db.UserPasskeys.Any(k => k.UserId == s.Person.Id),
                })
                .AsNoTracking()
    );

    private sealed class Who
    {
        public required Person Person { get; init; }
        public required bool HasSecondFactor { get; init; }
        public required bool Elsewhere { get; init; }
    }

    /// <summary>Those that are still good, newest first.</summary>
    public async Task<IReadOnlyList<KeptSession>> OfAsync(string person, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var now = time.GetUtcNow();
        return await db
            .Sessions.AsNoTracking()
            .Where(s => s.Person == person && s.EndedAt == null && s.Until > now)
            .OrderByDescending(s => s.Since)
            .Select(s => new KeptSession(s.Id, s.Person, s.Since, s.LastSeen, s.Device, s.Address))
            .ToListAsync(ct);
    }

    /// <summary>Whether somebody of this name came in from there within the last month.</summary>
    public async Task<bool> KnowsAsync(string person, string address, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var from = time.GetUtcNow() - KeptFor;
        return await db.Sessions.AsNoTracking().AnyAsync(s => s.Person == person && s.Since > from && s.Address == address, ct);
    }

    /// <returns>False where none of theirs that is still good has this id.</returns>
    public async Task<bool> EndAsync(Doer by, string person, Guid id, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var now = time.GetUtcNow();
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        var session = await db.Sessions.FirstOrDefaultAsync(
            s => s.Id == id && s.Person == person && s.EndedAt == null && s.Until > now,
            ct
        );
        if (session is null)
            return false;
        session.EndedAt = now;
        await SecurityLog.AddAsync(db, by, SecurityEvent.SessionEnded, person, session.Device, now, ct);
        await transaction.CommitAsync(ct);
        return true;
    }

    /// <summary>They sign out themselves.</summary>
    public async Task SignOutAsync(Doer by, Guid id, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var now = time.GetUtcNow();
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        if (await EndAllAsync(db.Sessions.Where(s => s.Id == id), now, ct) > 0)
            await SecurityLog.AddAsync(db, by, SecurityEvent.SignedOut, null, null, now, ct);
        await transaction.CommitAsync(ct);
    }

    /// <summary>Notes when each was last heard of, all in one.</summary>
    public async Task SeenAsync(IReadOnlyCollection<KeyValuePair<Guid, DateTimeOffset>> seen, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        foreach (var (id, at) in seen)
            if (await db.Sessions.Where(s => s.Id == id).ExecuteUpdateAsync(set => set.SetProperty(s => s.LastSeen, at), ct) == 0)
                await db.ScriptKeys.Where(k => k.Id == id).ExecuteUpdateAsync(set => set.SetProperty(k => k.LastUsed, at), ct);
        await transaction.CommitAsync(ct);
    }

    internal static Task<int> EndAllAsync(IQueryable<SessionRow> sessions, DateTimeOffset now, CancellationToken ct) =>
        sessions.Where(s => s.EndedAt == null).ExecuteUpdateAsync(set => set.SetProperty(s => s.EndedAt, now), ct);
}
