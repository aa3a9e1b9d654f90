using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.OpenIdConnect;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.Extensions.Options;
using Nailcrow.Client.People;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Wire;
using Nailcrow.Service.People.SigningIn;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.Elsewhere;

/// <summary>Coming in by a provider of sign-ins, in a browser and without one, and saying whom it means by oneself.</summary>
internal static class ElsewhereEndpoints
{
    private const string Begin = "api/sign-in/elsewhere";

    public static void MapElsewhere(this RouteGroupBuilder api, RouteGroupBuilder care)
    {
        api.MapGet("/sign-in", Ways).WithName("SignInWays").AllowAnonymous();
        api.MapGet("/sign-in/elsewhere", Go).WithName("GoElsewhere").AllowAnonymous();
        api.MapPost("/sign-in/elsewhere/device", AskDevice).WithName("AskDevice").AllowAnonymous();
        api.MapPost("/sign-in/elsewhere/device/shown", ShowDevice).WithName("ShowDevice").AllowAnonymous().Produces<Token>();
        api.MapPost("/sign-in/elsewhere/joined", Joined).WithName("JoinedElsewhere").AllowAnonymous().DisableAntiforgery(); // the seal is one
        var own = api.MapGroup("/me/elsewhere").NotByKey();
        own.MapPost("", Join).WithName("JoinElsewhere");
        own.MapPost("/end", Part).WithName("PartElsewhere");
        care.MapPost("/{name}/elsewhere/end", PartOther).WithName("PartOtherElsewhere");
    }

    internal static Ok<SignInWays> Ways(ElsewhereWays ways, OurAddress ours) =>
        TypedResults.Ok(new SignInWays(ways.Settings is { } there ? new ElsewhereWay(there.NameTold, ours.Of(Begin).AbsoluteUri) : null));

    /// <param name="to">The page that is gone to once they are in.</param>
    /// <param name="joins">Sealed: who says whom the provider means by them.</param>
    internal static async Task<Results<ChallengeHttpResult, EmptyHttpResult>> Go(
        string? to,
        string? joins,
        HttpContext http,
        ElsewhereWays ways,
        Joinings joinings,
        DoorPace pace,
        IOptionsMonitor<OpenIdConnectOptions> options,
        CancellationToken ct
    )
    {
        if (ways.Settings is not { } there)
            return await SayAsync(http, NoneSet, StatusCodes.Status404NotFound);
        if (!pace.MayGo(http))
            return await SayAsync(http, TooMany, StatusCodes.Status429TooManyRequests);
        var state = new AuthenticationProperties { RedirectUri = "/" };
        state.Items[ComingBack.To] = IsOwnPage(to) ? to : "/";
        if (joins is not null)
        {
            if (joinings.OpenThere(joins) is not { } session)
                return await SayAsync(http, "That was asked for more than five minutes ago; ask for it again under your name.");
            state.Items[ComingBack.Joins] = session.ToString();
        }
        try
        {
            // Asked here, where whoever is not reached can be told of.
            await options.Get(ElsewhereSetUp.Scheme).ConfigurationManager!.GetConfigurationAsync(ct); // set where the scheme is
        }
        catch (Exception e) when (e is InvalidOperationException or HttpRequestException)
        {
            return await SayAsync(
                http,
                $"{there.NameTold} cannot be reached from here. Try again, or sign in with your name and password.",
                StatusCodes.Status502BadGateway
            );
        }
        return TypedResults.Challenge(state, [ElsewhereSetUp.Scheme]);
    }

    internal static async Task<Results<Ok<DeviceAsked>, ProblemHttpResult>> AskDevice(
        HttpContext http,
        ElsewhereWays ways,
        DeviceSignIn devices,
        DoorPace pace,
        CancellationToken ct
    )
    {
        if (WhyNot(http, ways, pace) is { } no)
            return no;
        return (await devices.AskAsync(ct)).Is(out var asked, out var whyNot)
            ? TypedResults.Ok(asked)
            : TypedResults.Problem(whyNot, statusCode: 502, title: "Not signed in");
    }

    /// <summary>202 while nobody has said yes; then the bearer handler writes the token.</summary>
    internal static async Task<Results<SignInHttpResult, Accepted<DeviceWaits>, ProblemHttpResult>> ShowDevice(
        Sent<DeviceShown> sent,
        HttpContext http,
        ElsewhereWays ways,
        DeviceSignIn devices,
        ComingElsewhere coming,
        Sessions sessions,
        Standings standings,
        DoorPace pace,
        CancellationToken ct
    )
    {
        var shown = sent.Message;
        if (WhyNot(http, ways, pace) is { } no)
            return no;
        switch (await devices.ShownAsync(shown.Handle, ct))
        {
            case DeviceEnd.Waits(var seconds):
                return TypedResults.Accepted((string?)null, new DeviceWaits(seconds));
            case DeviceEnd.In(var told):
                if (!(await coming.ComesAsync(told, http.Address(), ct)).Is(out var person, out var whyNot))
                    return NotIn(whyNot);
                var session = await SignInEndpoints.SessionAsync(person, sessions, http, elsewhere: true);
                standings.Changed(); // their roles may be others now
                return TypedResults.SignIn(
                    SessionClaims.Of(session, person.Name, IdentityConstants.BearerScheme),
                    authenticationScheme: IdentityConstants.BearerScheme
                );
            case DeviceEnd.No(var why):
                return NotIn(why);
            case var other:
                throw new System.Diagnostics.UnreachableException($"{other} is no end.");
        }
    }

    /// <summary>With the password, as whatever else lets one in.</summary>
    internal static async Task<Results<Ok<ElsewhereJoining>, ProblemHttpResult>> Join(
        Sent<PasswordSaid> sent,
        HttpContext http,
        ElsewhereWays ways,
        OwnPasswords passwords,
        Joinings joinings,
        OurAddress ours,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (ways.Settings is null)
            return Refusals.NotFound(NoneSet);
        if (await passwords.WhyNotAsync(http.Doer(), ask.Password, ct) is { } no)
            return no;
        if (http.Stand() is not { } stand)
            return Refusals.NotFound("Nobody is signed in with a name that is known here.");
        var at = ours.Of($"{Begin}?to=/you&joins={Uri.EscapeDataString(joinings.There(stand.Id))}");
        return TypedResults.Ok(new ElsewhereJoining(at.AbsoluteUri));
    }

    /// <summary>Somebody has read on our page who would be whom, and said yes.</summary>
    internal static async Task<Results<RedirectHttpResult, EmptyHttpResult>> Joined(
        [FromForm] string joining,
        HttpContext http,
        Joinings joinings,
        PeopleElsewhere people,
        Standings standings,
        CancellationToken ct
    )
    {
        if (joinings.OpenBack(joining) is not { } asked)
            return await SayAsync(http, "That was asked more than five minutes ago; begin anew under your name.");
        if (await standings.OfAsync(asked.Session, null, ct) is not { } stand)
            return await SayAsync(http, ComingBack.SignedOut);
        var joined = await people.JoinAsync(new(stand.Name, http.Address()), asked.Told, ct);
        return joined is Parsed<Person>.Refused(var whyNot) ? await SayAsync(http, whyNot) : TypedResults.Redirect("/you");
    }

    internal static async Task<Results<NoContent, ProblemHttpResult>> Part(
        Sent<PasswordSaid> sent,
        HttpContext http,
        OwnPasswords passwords,
        PeopleElsewhere people,
        Standings standings,
        CancellationToken ct
    ) =>
        await passwords.WhyNotAsync(http.Doer(), sent.Message.Password, ct) is { } no
            ? no
            : await EndAsync(http.Doer(), http.Doer().Name, people, standings, ct);

    internal static async Task<Results<NoContent, ProblemHttpResult>> PartOther(
        string name,
        HttpContext http,
        PeopleBook book,
        PeopleElsewhere people,
        Standings standings,
        CancellationToken ct
    )
    {
        if (await book.FindAsync(name, ct) is not { } person)
            return PeopleEndpoints.Nobody(name);
        return name == http.Doer().Name
            ? Refusals.Refused("Your own is ended with your password: in the console under your name.")
            : await EndAsync(http.Doer(), person.Name, people, standings, ct);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> EndAsync(
        Doer by,
        string name,
        PeopleElsewhere people,
        Standings standings,
        CancellationToken ct
    )
    {
        if (!await people.PartAsync(by, name, ct))
            return Refusals.Refused($"{name} comes in by no provider of sign-ins.");
        standings.Changed();
        return TypedResults.NoContent();
    }

    private const string NoneSet = "No provider of sign-ins is set here; Nailcrow:Elsewhere names one at the start.";

    private const string TooMany = "Very many are signing in from where you are; try again in a minute.";

    private static ProblemHttpResult? WhyNot(HttpContext http, ElsewhereWays ways, DoorPace pace) =>
        ways.Settings is null ? Refusals.NotFound(NoneSet)
        : pace.MayGo(http) ? null
        : TypedResults.Problem(TooMany, statusCode: 429, title: "Not signed in");

    private static ProblemHttpResult NotIn(string why) => TypedResults.Problem(why, statusCode: 401, title: "Not signed in");

    private static async Task<EmptyHttpResult> SayAsync(HttpContext http, string sentence, int status = StatusCodes.Status403Forbidden)
    {
        await ElsewherePages.SayAsync(http, sentence, status);
        return TypedResults.Empty;
    }

    /// <summary>
    /// A path of this console, and not of another site that begins with two strokes, or would once a browser has left out what nobody sees
    /// in it (WHATWG URL, 4.4: tabs and line ends).
    /// </summary>
    private static bool IsOwnPage(string? to) =>
        to is { Length: <= 500 }
        && to.StartsWith('/')
        && !to.StartsWith("//", StringComparison.Ordinal)
        && to.All(c => c is > ' ' and <= '~' and not '\\');
}
