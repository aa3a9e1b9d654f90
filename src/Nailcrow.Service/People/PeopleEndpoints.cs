using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Store;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People;

internal static class PeopleEndpoints
{
    public static void MapPeople(this WebApplication app)
    {
        var people = app.MapGroup("/api").WithTags("People");
        people.MapPost("/sign-in", SignIn).WithName("SignIn").AllowAnonymous().Produces<Token>();
        people.MapPost("/sign-in/console", SignInConsole).WithName("SignInConsole").AllowAnonymous();
        people.MapPost("/sign-out", SignOut).WithName("SignOut");
        people.MapGet("/me", Me).WithName("Me");
        people.MapGet("/people", List).WithName("ListPeople");
        people.MapPost("/people", Add).WithName("AddPerson").Takes(Permission.AddPeople);
        people.MapPut("/people/{name}/mail", PutMail).WithName("PutPersonMail");
    }

    /// <summary>The bearer handler writes the token itself.</summary>
    internal static Task<Results<EmptyHttpResult, ProblemHttpResult>> SignIn(SignInAsk ask, SignInManager<Person> signIn) =>
        With(IdentityConstants.BearerScheme, ask, signIn);

    internal static Task<Results<EmptyHttpResult, ProblemHttpResult>> SignInConsole(SignInAsk ask, SignInManager<Person> signIn) =>
        With(IdentityConstants.ApplicationScheme, ask, signIn);

    private static async Task<Results<EmptyHttpResult, ProblemHttpResult>> With(string scheme, SignInAsk ask, SignInManager<Person> signIn)
    {
        signIn.AuthenticationScheme = scheme;
        var result = await signIn.PasswordSignInAsync(ask.Name, ask.Password, isPersistent: true, lockoutOnFailure: true);
        if (result.Succeeded)
            return TypedResults.Empty;
        return TypedResults.Problem(
            result.IsLockedOut ? "Too many wrong passwords; try again in five minutes." : "Name and password do not go together.",
            statusCode: 401,
            title: "Not signed in"
        );
    }

    internal static async Task<NoContent> SignOut(SignInManager<Person> signIn)
    {
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }

    internal static Ok<PersonView> Me(ClaimsPrincipal person)
    {
        var actor = person.ToActor();
        return TypedResults.Ok(
            new PersonView(actor.Name, person.FindFirstValue(PersonClaims.FullName) ?? actor.Name, [.. actor.Roles], Permissions.Of(actor))
        );
    }

    internal static async Task<Ok<PeopleList>> List(NailcrowDb db, CancellationToken ct)
    {
        var people = await db.Users.AsNoTracking().OrderBy(p => p.UserName).ToListAsync(ct);
        return TypedResults.Ok(new PeopleList([.. people.Select(View)]));
    }

    internal static async Task<Results<Ok<PersonView>, ProblemHttpResult>> Add(PersonAsk ask, UserManager<Person> people)
    {
        if (ask.Roles.Count == 0)
            return Refusals.Unusable($"A person has at least one role; accepted: {Words.List<Role>()}.");
        if (ask.Mail is { } mail && !Mailbox.IsOne(mail))
            return Refusals.Unusable(Mailbox.WhyNot(mail));
        var person = new Person
        {
            Email = ask.Mail?.Trim(),
            UserName = ask.Name,
            FullName = ask.FullName,
            RoleWords = string.Join(',', ask.Roles.Distinct().Select(Words.Of)),
        };
        var made = await people.CreateAsync(person, ask.Password);
        return made.Succeeded ? TypedResults.Ok(View(person)) : Refusals.Unusable(string.Join(" ", made.Errors.Select(e => e.Description)));
    }

    /// <summary>Where reminders go to: one's own, or anybody's where one lets people in.</summary>
    internal static async Task<Results<Ok<PersonView>, ProblemHttpResult>> PutMail(
        string name,
        PersonMail mail,
        NailcrowDb db,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var actor = person.ToActor();
        if (actor.Name != name && !actor.MayActAs(Permissions.Of(Permission.AddPeople)))
            return Refusals.NotAllowed($"{actor.Name} may change their own address; that of others takes the role admin.");
        var address = string.IsNullOrWhiteSpace(mail.Address) ? null : mail.Address.Trim();
        if (address is not null && !Mailbox.IsOne(address))
            return Refusals.Unusable(Mailbox.WhyNot(address));
        // Not through the sign-in's own way: an address is nothing that anybody signs in with, and changing it signs nobody out.
        var changed = await db.Users.Where(p => p.UserName == name).ExecuteUpdateAsync(set => set.SetProperty(p => p.Email, address), ct);
        return changed == 0
            ? Refusals.NotFound($"Nobody here is called '{Visible.Text(name)}'.")
            : TypedResults.Ok(View(await db.Users.AsNoTracking().FirstAsync(p => p.UserName == name, ct)));
    }

    private static PersonView View(Person person) => new(person.UserName ?? "", person.FullName, person.Roles(), Mail: person.Email);
}
