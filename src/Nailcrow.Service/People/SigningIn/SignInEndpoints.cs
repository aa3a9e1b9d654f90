using System.Globalization;
using System.Security.Claims;
using System.Text.Json;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Nailcrow.Client;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.People.SigningIn;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People.SecondFactor;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.SigningIn;

/// <summary>Coming in and going out.</summary>
internal static class SignInEndpoints
{
    private const int BusyForSeconds = 5;

    public static void MapSignIn(this RouteGroupBuilder api)
    {
        api.MapPost("/sign-in", SignIn).WithName("SignIn").AllowAnonymous().Produces<Token>();
        api.MapPost("/sign-in/console", SignInConsole).WithName("SignInConsole").AllowAnonymous();
        api.MapPost("/sign-in/passkey", AskPasskey).WithName("AskSignInPasskey").AllowAnonymous();
        api.MapPost("/sign-in/passkey/console", SignInByPasskey).WithName("SignInByPasskey").AllowAnonymous();
        api.MapPost("/sign-out", SignOut).WithName("SignOut");
        api.MapGet("/me", Me).WithName("Me");
        api.MapPut("/me/password", ChangePassword).WithName("ChangePassword").NotByKey();
    }

    /// <summary>The bearer handler writes the token itself.</summary>
    internal static Task<Results<SignInHttpResult, ProblemHttpResult>> SignIn(
        Sent<SignInAsk> sent,
        SignIns signIns,
        Sessions sessions,
        HttpContext http,
        CancellationToken ct
    ) => WithAsync(IdentityConstants.BearerScheme, sent.Message, signIns, sessions, http, ct);

    internal static Task<Results<SignInHttpResult, ProblemHttpResult>> SignInConsole(
        Sent<SignInAsk> sent,
        SignIns signIns,
        Sessions sessions,
        HttpContext http,
        CancellationToken ct
    ) => WithAsync(IdentityConstants.ApplicationScheme, sent.Message, signIns, sessions, http, ct);

    private static async Task<Results<SignInHttpResult, ProblemHttpResult>> WithAsync(
        string scheme,
        SignInAsk ask,
        SignIns signIns,
        Sessions sessions,
        HttpContext http,
        CancellationToken ct
    )
    {
        var address = http.Address();
        switch (await signIns.TryAsync(ask, address, ct))
        {
            case SignInEnd.In(var person):
                return await OpenAsync(scheme, person, sessions, http);
            case SignInEnd.SecondWanted wanted:
                return TypedResults.Problem(SecondWanted(wanted), statusCode: 401, title: "Not signed in", type: ProblemTypes.SecondFactor);
            case SignInEnd.Wait(var wait):
                return Slowed(http, wait);
            case SignInEnd.Busy:
                http.Response.Headers.RetryAfter = $"{BusyForSeconds}";
                return TypedResults.Problem(
                    $"Very many are signing in at this moment; try again in {BusyForSeconds} seconds.",
                    statusCode: 503,
                    title: "Busy"
                );
            default:
                return TypedResults.Problem("Name and password do not go together.", statusCode: 401, title: "Not signed in");
        }
    }

    private static string SecondWanted(SignInEnd.SecondWanted wanted) =>
        wanted.WasWrong ? "That code is another one, or was used before. Type the one that your device shows now, or a recovery code."
        : wanted.ByPasskey ? "Your second factor is a passkey, which the console asks for; elsewhere a recovery code does."
        : "Type the six digits that your device shows now, or a recovery code.";

    private static ProblemHttpResult Slowed(HttpContext http, TimeSpan wait)
    {
        http.Response.Headers.RetryAfter = ((int)Math.Ceiling(wait.TotalSeconds)).ToString(CultureInfo.InvariantCulture);
        return TypedResults.Problem(
            $"Too many wrong passwords were tried; try again in {Waits.Told(wait)}.",
            statusCode: 429,
            title: "Not signed in"
        );
    }

    private static async Task<SignInHttpResult> OpenAsync(string scheme, Person person, Sessions sessions, HttpContext http)
    {
        var session = await SessionAsync(person, sessions, http, elsewhere: false);
        return TypedResults.SignIn(
            SessionClaims.Of(session, person.Name, scheme),
            new AuthenticationProperties { IsPersistent = true },
            scheme
        );
    }

    /// <param name="elsewhere">By a provider of sign-ins.</param>
    internal static Task<Guid> SessionAsync(Person person, Sessions sessions, HttpContext http, bool elsewhere) =>
        sessions.OpenAsync(
            person.Name,
            Device.Told(http.Request.Headers.UserAgent),
            http.Address(),
            PeopleSetUp.SignedInFor,
            http.RequestAborted,
            elsewhere
        );

    internal static async Task<Ok<PasskeyAsked>> AskPasskey(Passkeys passkeys, IPasskeyHandler<Person> handler, HttpContext http) =>
        TypedResults.Ok(await passkeys.AskToShowAsync(handler, http));

    /// <summary>A passkey alone: the device that keeps it has looked who holds it.</summary>
    internal static async Task<Results<SignInHttpResult, ProblemHttpResult>> SignInByPasskey(
        Sent<PasskeyShown> sent,
        Passkeys passkeys,
        IPasskeyHandler<Person> handler,
        UserManager<Person> users,
        Sessions sessions,
        SignInLimits limits,
        SecurityLog log,
        TimeProvider time,
        HttpContext http,
        CancellationToken ct
    )
    {
        var shown = sent.Message;
        var name = PasskeyNamed(shown);
        if (limits.Begin(name, http.Address(), known: true, time.GetUtcNow()) is { Ticks: > 0 } wait)
            return Slowed(http, wait);
        if (await passkeys.ShownAsync(handler, shown, http) is not { Person: { DisabledAt: null } person, Passkey: var passkey })
        {
            await log.WriteAsync(new(ByPasskey, http.Address()), SecurityEvent.SignInRefused, null, null, ct);
            return TypedResults.Problem(
                "That passkey opens nothing here, or was asked for more than five minutes ago.",
                statusCode: 401,
                title: "Not signed in"
            );
        }
        limits.Right(name, http.Address(), known: true);
        await users.AddOrUpdatePasskeyAsync(person, passkey); // its count goes up with each use
        return await OpenAsync(IdentityConstants.ApplicationScheme, person, sessions, http);
    }

    // A name that nobody can have, under which wrong ones are told.
    private const string ByPasskey = "(a passkey)";

    private const int LongestCredential = 1_400; // 1,023 bytes in base64url, and some room

    /// <summary>What wrong tries are counted for: this passkey, and not all of an office behind one address.</summary>
    private static string PasskeyNamed(PasskeyShown shown) =>
        shown.Credential is { ValueKind: JsonValueKind.Object } credential
        && credential.TryGetProperty("id", out var id)
        && id is { ValueKind: JsonValueKind.String }
        && id.GetString() is { Length: <= LongestCredential } said
            ? $"{ByPasskey} {said}"
            : ByPasskey;

    internal static async Task<NoContent> SignOut(HttpContext http, Sessions sessions, Standings standings, CancellationToken ct)
    {
        if (http.Stand() is { Key: false } stand)
        {
            await sessions.SignOutAsync(http.Doer(), stand.Id, ct);
            standings.Changed();
        }
        await http.SignOutAsync(IdentityConstants.ApplicationScheme); // the cookie goes too
        return TypedResults.NoContent();
    }

    internal static async Task<Ok<PersonView>> Me(
        ClaimsPrincipal person,
        HttpContext http,
        PeopleBook people,
        PeopleElsewhere elsewhere,
        CancellationToken ct
    )
    {
        var actor = person.ToActor();
        var me = await people.FindAsync(actor.Name, ct);
        return TypedResults.Ok(
            new PersonView(
                actor.Name,
                http.Stand()?.FullName ?? actor.Name,
                [.. actor.Roles],
                Permissions.Of(actor),
                me?.Email,
                MustChange: http.Stand()?.MustChange ?? false,
                HasSecondFactor: http.Stand() is { Key: false } stand ? stand.As.HasSecondFactor : null,
                MustSetUp: http.Stand()?.MustSetUp ?? false,
                Elsewhere: await elsewhere.OfAsync(actor.Name, ct),
                HasPassword: me?.PasswordHash is not null,
                Withheld: Permissions.WithheldFrom(actor)
            )
        );
    }

    internal static async Task<Results<Ok<PersonView>, ProblemHttpResult>> ChangePassword(
        Sent<OwnPassword> sent,
        HttpContext http,
        PeopleBook people,
        PasswordHashing hashing,
        OwnPasswords passwords,
        Standings standings,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        var (doer, stand) = (http.Doer(), http.Stand());
        if (stand is null || await people.FindAsync(doer.Name, ct) is not { } person)
            return Refusals.NotFound("Nobody is signed in with a name that is known here.");
        if (await passwords.WhyNotAsync(doer, ask.Now, ct) is { } no)
            return no;
        if (ask.Next == ask.Now)
            return Refusals.Unusable("That is the password you have now; choose another one.");
        if (Password.WhyNot(ask.Next, person.Name, person.FullName, CommonPasswords.Has) is { } whyNot)
            return Refusals.Unusable(whyNot);
        if (await hashing.HashAsync(ask.Next, ct) is not { } hash)
            return TypedResults.Problem("Very many are signing in at this moment; try again.", statusCode: 503);
        var changed = await people.PasswordAsync(doer, person.Name, hash, own: true, keep: stand.Id, ct);
        standings.Changed();
        return changed.Is(out var now, out var reason) ? TypedResults.Ok(PersonViews.Of(now)) : Refusals.Refused(reason);
    }
}
