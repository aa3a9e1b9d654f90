using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.People.SigningIn;
using Nailcrow.Core.Terms;
using Nailcrow.Store.People.SigningIn;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.People;

/// <summary>
/// Who may come in, and as what. Each change is written with its line of the security log; what takes something away ends the
/// sign-ins it was good for in the same transaction.
/// </summary>
public sealed class PeopleBook(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    private DateTimeOffset FirstUntil => time.GetUtcNow() + Password.FirstLasts;

    public async Task<IReadOnlyList<Person>> AllAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Users.AsNoTracking().OrderBy(p => p.UserName).ToListAsync(ct);
    }

    public async Task<Person?> FindAsync(string name, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Users.AsNoTracking().FirstOrDefaultAsync(p => p.UserName == name, ct);
    }

    /// <summary>Whom somebody means who types this to sign in, in whatever case.</summary>
    public async Task<Person?> ToSignInAsync(string typed, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var upper = typed.ToUpperInvariant();
        return await db.Users.AsNoTracking().FirstOrDefaultAsync(p => p.NormalizedUserName == upper, ct);
    }

    public async Task<Parsed<Person>> AddAsync(Doer by, Person person, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        person.FirstUntil = person.MustChange ? FirstUntil : null;
        var added = await AddAsync(db, by, person, time.GetUtcNow(), ct);
        if (added is Parsed<Person>.Ok)
            await transaction.CommitAsync(ct);
        return added;
    }

    /// <summary>As part of what else is written with it.</summary>
    internal static async Task<Parsed<Person>> AddAsync(NailcrowDb db, Doer by, Person person, DateTimeOffset now, CancellationToken ct)
    {
        var others = await db.Users.AsNoTracking().Select(p => p.UserName ?? "").ToListAsync(ct);
        if (!SignInName.Parse(person.Name, others).Is(out var name, out var whyNot))
            return new Parsed<Person>.Refused(whyNot);
        (person.UserName, person.NormalizedUserName) = (name, name.ToUpperInvariant());
        db.Users.Add(person);
        await SecurityLog.AddAsync(db, by, SecurityEvent.PersonAdded, name, $"{person.FullName}; {person.RoleWords}", now, ct);
        return new Parsed<Person>.Ok(person);
    }

    public Task<Parsed<Person>> RenameAsync(Doer by, string name, string fullName, CancellationToken ct) =>
        ChangeAsync(
            by,
            name,
            (person, _) => new Change(SecurityEvent.PersonRenamed, $"{person.FullName} to {fullName}", () => person.FullName = fullName),
            ct
        );

    /// <param name="address">Null to send them nothing.</param>
    public Task<Parsed<Person>> MailAsync(Doer by, string name, string? address, CancellationToken ct) =>
        ChangeAsync(
            by,
            name,
            (person, _) =>
                new Change(
                    SecurityEvent.MailChanged,
                    $"{person.Email ?? SignInLetters.Nowhere} to {address ?? SignInLetters.Nowhere}",
                    () => person.Email = address
                ),
            ct
        );

    public Task<Parsed<Person>> RolesAsync(Doer by, string name, IReadOnlyCollection<Role> roles, CancellationToken ct) =>
        ChangeAsync(
            by,
            name,
            (person, isLastAdmin) =>
                isLastAdmin && !roles.Contains(Role.Admin)
                    ? Change.No(LastAdmin(name, "keep the role"))
                    : new Change(
                        SecurityEvent.RolesChanged,
                        $"{person.RoleWords} to {RoleList.Text(roles)}",
                        () => person.RoleWords = RoleList.Text(roles)
                    ),
            ct
        );

    /// <param name="leaves">They leave the firm, and not for a while only.</param>
    public Task<Parsed<Person>> DisableAsync(Doer by, string name, string because, bool leaves, CancellationToken ct) =>
        ChangeAsync(
            by,
            name,
            (person, isLastAdmin) =>
                person.DisabledAt is not null ? Change.No($"{name} may not come in already: {person.DisabledBecause}")
                : isLastAdmin ? Change.No(LastAdmin(name, "be let in"))
                : new Change(
                    leaves ? SecurityEvent.PersonLeft : SecurityEvent.PersonDisabled,
                    because,
                    () => (person.DisabledAt, person.DisabledBecause) = (time.GetUtcNow(), because),
                    Ends: true
                ),
            ct
        );

    public Task<Parsed<Person>> EnableAsync(Doer by, string name, CancellationToken ct) =>
        ChangeAsync(
            by,
            name,
            (person, _) =>
                person.DisabledAt is null
                    ? Change.No($"{name} may come in already.")
                    : new Change(SecurityEvent.PersonEnabled, null, () => (person.DisabledAt, person.DisabledBecause) = (null, null)),
            ct
        );

    /// <summary>Another password, and every sign-in with the one before is over.</summary>
    /// <param name="own">They chose it themselves; else it is good for choosing one.</param>
    /// <param name="keep">The sign-in that it was changed in goes on.</param>
    public Task<Parsed<Person>> PasswordAsync(Doer by, string name, string hash, bool own, Guid? keep, CancellationToken ct) =>
        ChangeAsync(
            by,
            name,
            (person, _) =>
                new Change(
                    own ? SecurityEvent.PasswordChanged : SecurityEvent.PasswordGiven,
                    null,
                    () => (person.PasswordHash, person.MustChange, person.FirstUntil) = (hash, !own, own ? null : FirstUntil),
                    Ends: true,
                    Keep: keep
                ),
            ct
        );

    /// <summary>
    /// On the machine itself: whoever it is may come in, as an administrator, with a password that has to be changed, and whatever they
    /// showed beside the one before is forgotten.
    /// </summary>
    public Task<Parsed<Person>> LetBackInAsync(string name, string hash, CancellationToken ct) =>
        ChangeAsync(
            new("root", null),
            name,
            (person, _) =>
                new Change(
                    SecurityEvent.LetBackIn,
                    null,
                    () =>
                    {
                        (person.DisabledAt, person.DisabledBecause) = (null, null);
                        (person.PasswordHash, person.MustChange, person.FirstUntil) = (hash, true, FirstUntil);
                        person.RoleWords = RoleList.Text([.. person.Roles(), Role.Admin]);
                    },
                    Ends: true,
                    Forgets: true
                ),
            ct
        );

    /// <summary>The same password, hashed as is usual now; nothing that anybody would notice.</summary>
    public async Task HashedAnewAsync(string name, string before, string hash, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await db
            .Users.Where(p => p.UserName == name && p.PasswordHash == before)
            .ExecuteUpdateAsync(set => set.SetProperty(p => p.PasswordHash, hash), ct);
    }

    /// <summary>What is to be changed, or why it is not.</summary>
    /// <param name="Ends">Their sign-ins and keys are over with it.</param>
    /// <param name="Forgets">So are their second factors, and whom a provider of sign-ins means by them.</param>
    private sealed record Change(
        SecurityEvent What,
        string? Detail,
        Action Do,
        bool Ends = false,
        Guid? Keep = null,
        string? WhyNot = null,
        bool Forgets = false
    )
    {
        public static Change No(string whyNot) => new(default, null, () => { }, WhyNot: whyNot);
    }

    private async Task<Parsed<Person>> ChangeAsync(Doer by, string name, Func<Person, bool, Change> decide, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        // Whoever else changes people waits: two administrators who shut each other out at once would leave nobody.
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        if (await db.Users.FirstOrDefaultAsync(p => p.UserName == name, ct) is not { } person)
            return new Parsed<Person>.Refused($"Nobody here is called '{Visible.Text(name)}'.");
        var change = decide(person, await IsLastAdminAsync(db, person, ct));
        if (change.WhyNot is { } whyNot)
            return new Parsed<Person>.Refused(whyNot);
        change.Do();
        var now = time.GetUtcNow();
        if (change.Ends)
        {
            await Sessions.EndAllAsync(db.Sessions.Where(s => s.Person == name && s.Id != change.Keep), now, ct);
            if (person.DisabledAt is not null)
                await ScriptKeys.EndAllAsync(db, name, now, ct);
        }
        if (change.Forgets)
        {
            await SecondFactors.ForgetAsync(db, name, ct);
            await db.UserLogins.Where(l => l.UserId == person.Id).ExecuteDeleteAsync(ct);
        }
        await SecurityLog.AddAsync(db, by, change.What, name, change.Detail, now, ct);
        await transaction.CommitAsync(ct);
        return new Parsed<Person>.Ok(person);
    }

    internal static async Task<bool> IsLastAdminAsync(NailcrowDb db, Person person, CancellationToken ct) =>
        person.DisabledAt is null
        && person.Roles().Contains(Role.Admin)
        && (await db.Users.AsNoTracking().Where(p => p.UserName != person.UserName && p.DisabledAt == null).ToListAsync(ct)).All(p =>
            !p.Roles().Contains(Role.Admin)
        );

    private static string LastAdmin(string name, string what) =>
        $"{name} is the last administrator who may come in, and has to {what}: nobody could look after people any more. "
        + "Give another person the role admin first.";
}
