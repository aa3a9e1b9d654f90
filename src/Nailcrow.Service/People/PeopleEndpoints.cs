using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.People.SigningIn;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.People.Elsewhere;
using Nailcrow.Service.People.Keys;
using Nailcrow.Service.People.Leaving;
using Nailcrow.Service.People.SecondFactor;
using Nailcrow.Service.People.SigningIn;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People;

internal static class PeopleEndpoints
{
    private const int LongestReason = 400;

    public static void MapPeople(this WebApplication app)
    {
        var api = app.MapGroup("/api").WithTags("People");
        api.MapSignIn();
        api.MapGet("/people", List).WithName("ListPeople");
        api.MapPut("/people/{name}/mail", PutMail).WithName("PutPersonMail");
        api.MapComingsIn();
        api.MapSecurityLog();
        var care = api.MapGroup("/people").Takes(Permission.LookAfterPeople).NotByKey();
        care.MapPost("", Add).WithName("AddPerson");
        care.MapPut("/{name}/full-name", Rename).WithName("RenamePerson");
        care.MapPut("/{name}/roles", PutRoles).WithName("PutRoles");
        care.MapPut("/{name}/password", GivePassword).WithName("GivePassword");
        care.MapPost("/{name}/disable", Disable).WithName("DisablePerson");
        care.MapPost("/{name}/enable", Enable).WithName("EnablePerson");
        api.MapLeaving(care);
        api.MapSecondFactor(care);
        api.MapElsewhere(care);
    }

    /// <summary>Everybody; why somebody may not come in is between them and who looks after people.</summary>
    internal static async Task<Ok<PeopleList>> List(
        PeopleBook people,
        SecondFactors factors,
        PeopleElsewhere elsewhere,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var all = (await people.AllAsync(ct)).Select(PersonViews.Of);
        if (!person.ToActor().MayActAs(Permissions.Of(Permission.LookAfterPeople)))
            return TypedResults.Ok(
                new PeopleList([
                    .. all.Select(p => p with { DisabledBecause = null, MustChange = false, FirstUntil = null, HasPassword = true }),
                ])
            );
        var (have, by) = (await factors.WhoAsync(ct), await elsewhere.WhoAsync(ct));
        return TypedResults.Ok(
            new PeopleList([
                .. all.Select(p => p with { HasSecondFactor = have.Contains(p.Name), Elsewhere = by.GetValueOrDefault(p.Name) }),
            ])
        );
    }

    internal static async Task<Results<Ok<PersonLetIn>, ProblemHttpResult>> Add(
        Sent<PersonAsk> sent,
        HttpContext http,
        PeopleBook people,
        FirstPasswords passwords,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (ask.Roles.Count == 0)
            return Refusals.Unusable($"A person has at least one role; accepted: {Words.List<Role>()}.");
        if (ask.Mail is { } mail && !Mailbox.IsOne(mail))
            return Refusals.Unusable(Mailbox.WhyNot(mail));
        if (!FullName.Parse(ask.FullName).Is(out var fullName, out var noName))
            return Refusals.Unusable(noName);
        // Before the password is hashed, which takes long: whether there can be such a person at all.
        if (!SignInName.Parse(ask.Name, (await people.AllAsync(ct)).Select(p => p.Name)).Is(out var name, out var whyNot))
            return Refusals.Unusable(whyNot);
        if (!(await passwords.GiveAsync(ask.Password, name, fullName, ct)).Is(out var first, out var noPassword))
            return Refusals.Unusable(noPassword);
        var person = new Person
        {
            Email = ask.Mail?.Trim(),
            UserName = name,
            FullName = fullName,
            RoleWords = string.Join(',', ask.Roles.Distinct().Select(Words.Of)),
            PasswordHash = first.Hash,
            MustChange = true,
        };
        return (await people.AddAsync(http.Doer(), person, ct)).Is(out var made, out var reason)
            ? TypedResults.Ok(new PersonLetIn(PersonViews.Of(made), first.Shown))
            : Refusals.Unusable(reason);
    }

    internal static async Task<Results<Ok<PersonView>, ProblemHttpResult>> Rename(
        string name,
        Sent<PersonName> sent,
        HttpContext http,
        PeopleBook people,
        Standings standings,
        CancellationToken ct
    ) =>
        FullName.Parse(sent.Message.FullName).Is(out var fullName, out var whyNot)
            ? await ChangedAsync(name, people, standings, () => people.RenameAsync(http.Doer(), name, fullName, ct), ct)
            : Refusals.Unusable(whyNot);

    internal static async Task<Results<Ok<PersonView>, ProblemHttpResult>> PutRoles(
        string name,
        Sent<PersonRoles> sent,
        HttpContext http,
        PeopleBook people,
        Standings standings,
        CancellationToken ct
    ) =>
        sent.Message.Roles.Count == 0
            ? Refusals.Unusable($"A person has at least one role; accepted: {Words.List<Role>()}. Who may do nothing any more is disabled.")
            : await ChangedAsync(name, people, standings, () => people.RolesAsync(http.Doer(), name, sent.Message.Roles, ct), ct);

    internal static async Task<Results<Ok<PersonLetIn>, ProblemHttpResult>> GivePassword(
        string name,
        Sent<PasswordGiven> sent,
        HttpContext http,
        PeopleBook people,
        FirstPasswords passwords,
        Standings standings,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (await people.FindAsync(name, ct) is not { } person)
            return Nobody(name);
        if (!(await passwords.GiveAsync(ask.Password, person.Name, person.FullName, ct)).Is(out var first, out var whyNot))
            return Refusals.Unusable(whyNot);
        var changed = await people.PasswordAsync(http.Doer(), name, first.Hash, own: false, keep: null, ct);
        standings.Changed();
        return changed.Is(out var now, out var reason)
            ? TypedResults.Ok(new PersonLetIn(PersonViews.Of(now), first.Shown))
            : Refusals.Refused(reason);
    }

    internal static async Task<Results<Ok<PersonView>, ProblemHttpResult>> Disable(
        string name,
        Sent<PersonOut> sent,
        HttpContext http,
        PeopleBook people,
        Standings standings,
        CancellationToken ct
    ) =>
        WhyNoReason(sent.Message) is { } whyNot
            ? Refusals.Unusable(whyNot)
            : await ChangedAsync(
                name,
                people,
                standings,
                () => people.DisableAsync(http.Doer(), name, sent.Message.Because.Trim(), leaves: false, ct),
                ct
            );

    internal static Task<Results<Ok<PersonView>, ProblemHttpResult>> Enable(
        string name,
        HttpContext http,
        PeopleBook people,
        Standings standings,
        CancellationToken ct
    ) => ChangedAsync(name, people, standings, () => people.EnableAsync(http.Doer(), name, ct), ct);

    /// <summary>What is wrong with the reason why somebody may not come in any more; null where nothing is.</summary>
    internal static string? WhyNoReason(PersonOut ask) =>
        ask.Because.Trim().Length is 0 or > LongestReason ? $"Say why, in 1 to {LongestReason} characters: somebody will ask." : null;

    internal static async Task<Results<Ok<PersonView>, ProblemHttpResult>> ChangedAsync(
        string name,
        PeopleBook people,
        Standings standings,
        Func<Task<Parsed<Person>>> change,
        CancellationToken ct
    )
    {
        if (await people.FindAsync(name, ct) is null)
            return Nobody(name);
        var changed = await change();
        standings.Changed();
        return changed.Is(out var person, out var reason) ? TypedResults.Ok(PersonViews.Of(person)) : Refusals.Refused(reason);
    }

    internal static ProblemHttpResult Nobody(string name) => Refusals.NotFound($"Nobody here is called '{Visible.Text(name)}'.");

    /// <summary>Where reminders go to: one's own, or anybody's where one looks after people.</summary>
    internal static async Task<Results<Ok<PersonView>, ProblemHttpResult>> PutMail(
        string name,
        Sent<PersonMail> sent,
        HttpContext http,
        PeopleBook people,
        CancellationToken ct
    )
    {
        var mail = sent.Message;
        var actor = http.User.ToActor();
        if (actor.Name != name && !actor.MayActAs(Permissions.Of(Permission.LookAfterPeople)))
            return Refusals.NotAllowed($"{actor.Name} may change their own address; that of others takes the role admin.");
        var address = string.IsNullOrWhiteSpace(mail.Address) ? null : mail.Address.Trim();
        if (address is not null && !Mailbox.IsOne(address))
            return Refusals.Unusable(Mailbox.WhyNot(address));
        if (await people.FindAsync(name, ct) is not { } known)
            return Nobody(name);
        if (known.Email == address)
            return TypedResults.Ok(PersonViews.Of(known)); // said twice
        return (await people.MailAsync(http.Doer(), name, address, ct)).Is(out var changed, out var reason)
            ? TypedResults.Ok(PersonViews.Of(changed))
            : Refusals.Refused(reason);
    }
}
