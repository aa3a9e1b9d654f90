using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.People.SigningIn;
using Nailcrow.Core.Terms;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.People.SigningIn;

/// <summary>
/// Who comes in by a provider of sign-ins: known by what it never gives to anybody else, its subject, and never by a name or an address,
/// which it may.
/// </summary>
public sealed class PeopleElsewhere(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    /// <summary>Whom the provider has let in, as here: with the roles it says now; at the first time they are added.</summary>
    /// <param name="roles">What its groups are here.</param>
    /// <param name="address">Where they are, as an IP address.</param>
    public async Task<Parsed<Person>> ComesAsync(ToldElsewhere told, IReadOnlyList<Role> roles, string address, CancellationToken ct)
    {
        if (roles.Count == 0)
            return No(
                $"{told.Provider} lets you in, and names no group of yours that has a role here. Whoever looks after its groups can."
            );
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        var come = await KnownAsync(db, told, ct) is { } known
            ? await WithRolesAsync(db, known, roles, address, ct)
            : await AddAsync(db, told, roles, address, ct);
        if (come is Parsed<Person>.Ok)
            await transaction.CommitAsync(ct);
        return come;
    }

    /// <summary>Whoever is signed in here says that they are this one there.</summary>
    public async Task<Parsed<Person>> JoinAsync(Doer by, ToldElsewhere told, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        if (await db.Users.FirstOrDefaultAsync(p => p.UserName == by.Name && p.DisabledAt == null, ct) is not { } person)
            return No($"Nobody who may come in here is called '{Visible.Text(by.Name)}'.");
        if (await KnownAsync(db, told, ct) is { } known)
            return known.Name == by.Name
                ? new Parsed<Person>.Ok(known)
                : No($"Whoever is signed in there is {known.Name} here. Sign out there, and in again as yourself.");
        if (await OfAsync(db, person.Id, ct) is { } other)
            return No($"You come in by {other} as somebody else already; end that first.");
        Join(db, person, told);
        await db.SaveChangesAsync(ct);
        await SecurityLog.AddAsync(db, by, SecurityEvent.ElsewhereJoined, null, told.Provider, time.GetUtcNow(), ct);
        await transaction.CommitAsync(ct);
        return new Parsed<Person>.Ok(person);
    }

    /// <returns>False where they come in by no provider.</returns>
    public async Task<bool> PartAsync(Doer by, string name, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        if (await db.Users.FirstOrDefaultAsync(p => p.UserName == name, ct) is not { } person)
            return false;
        if (await OfAsync(db, person.Id, ct) is not { } issuer)
            return false;
        await db.UserLogins.Where(l => l.UserId == person.Id).ExecuteDeleteAsync(ct);
        var now = time.GetUtcNow();
        await Sessions.EndAllAsync(db.Sessions.Where(s => s.Person == name && s.Elsewhere), now, ct);
        await SecurityLog.AddAsync(db, by, SecurityEvent.ElsewhereParted, by.Name == name ? null : name, issuer, now, ct);
        await transaction.CommitAsync(ct);
        return true;
    }

    /// <summary>By which provider somebody comes in; null where by none.</summary>
    public async Task<string?> OfAsync(string name, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db
            .UserLogins.AsNoTracking()
            .Join(db.Users.Where(p => p.UserName == name), l => l.UserId, p => p.Id, (l, _) => l.ProviderDisplayName ?? l.LoginProvider)
            .FirstOrDefaultAsync(ct);
    }

    /// <summary>By which provider each comes in who does, by their names.</summary>
    public async Task<IReadOnlyDictionary<string, string>> WhoAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db
            .UserLogins.AsNoTracking()
            .Join(
                db.Users,
                l => l.UserId,
                p => p.Id,
                (l, p) => new { Name = p.UserName ?? "", Provider = l.ProviderDisplayName ?? l.LoginProvider }
            )
            .ToDictionaryAsync(l => l.Name, l => l.Provider, StringComparer.Ordinal, ct);
    }

    private static Task<Person?> KnownAsync(NailcrowDb db, ToldElsewhere told, CancellationToken ct) =>
        db
            .UserLogins.Where(l => l.LoginProvider == told.Issuer && l.ProviderKey == told.Subject)
            .Join(db.Users, l => l.UserId, p => p.Id, (_, p) => p)
            .FirstOrDefaultAsync(ct);

    private static Task<string?> OfAsync(NailcrowDb db, string id, CancellationToken ct) =>
        db.UserLogins.Where(l => l.UserId == id).Select(l => l.ProviderDisplayName ?? l.LoginProvider).FirstOrDefaultAsync(ct);

    private async Task<Parsed<Person>> WithRolesAsync(
        NailcrowDb db,
        Person person,
        IReadOnlyList<Role> roles,
        string address,
        CancellationToken ct
    )
    {
        if (person.DisabledAt is not null)
            return No($"{person.Name} may not come in here.");
        // Whoever looks after people here would be nobody any more: they stay, whatever is said elsewhere.
        var given = await PeopleBook.IsLastAdminAsync(db, person, ct) ? RoleList.Text([.. roles, Role.Admin]) : RoleList.Text(roles);
        if (given == person.RoleWords)
            return new Parsed<Person>.Ok(person);
        var changed = $"{person.RoleWords} to {given}";
        person.RoleWords = given;
        await SecurityLog.AddAsync(
            db,
            new(SignInName.Elsewhere, address),
            SecurityEvent.RolesChanged,
            person.Name,
            changed,
            time.GetUtcNow(),
            ct
        );
        return new Parsed<Person>.Ok(person);
    }

    private async Task<Parsed<Person>> AddAsync(
        NailcrowDb db,
        ToldElsewhere told,
        IReadOnlyList<Role> roles,
        string address,
        CancellationToken ct
    )
    {
        if (await db.Users.AnyAsync(p => p.UserName == told.NameHere, ct))
            return No(
                $"There is a '{told.NameHere}' here already. If that is you, sign in with your password, and join the two under your name."
            );
        var person = new Person
        {
            UserName = told.NameHere,
            FullName = told.FullNameHere,
            RoleWords = RoleList.Text(roles),
            Email = told.Mail,
        };
        if (
            !(await PeopleBook.AddAsync(db, new(SignInName.Elsewhere, address), person, time.GetUtcNow(), ct)).Is(
                out var added,
                out var whyNot
            )
        )
            return No($"{whyNot} That is what {told.Provider} calls you; whoever looks after people here can add you by another name.");
        Join(db, added, told);
        await db.SaveChangesAsync(ct);
        return new Parsed<Person>.Ok(added);
    }

    private static void Join(NailcrowDb db, Person person, ToldElsewhere told) =>
        db.UserLogins.Add(
            new IdentityUserLogin<string>
            {
                LoginProvider = told.Issuer,
                ProviderDisplayName = told.Provider,
                ProviderKey = told.Subject,
                UserId = person.Id,
            }
        );

    private static Parsed<Person> No(string reason) => new Parsed<Person>.Refused(reason);
}
