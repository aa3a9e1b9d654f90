using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Identity;
using Nailcrow.Core.Terms;
using Nailcrow.Service.People.SigningIn;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.Elsewhere;

/// <summary>The browser is back from the provider, with what the framework has looked at: the code, its proof key, the token's signature.</summary>
internal static class ComingBack
{
    /// <summary>In the state that the browser carries, sealed: the session in which somebody joins.</summary>
    public const string Joins = "nailcrow.joins";

    /// <summary>In the same: where they go then.</summary>
    public const string To = "nailcrow.to";

    public const string SignedOut = "You were signed out here in the meantime; sign in and begin anew.";

    public static async Task InAsync(TicketReceivedContext back)
    {
        var http = back.HttpContext;
        back.HandleResponse();
        if (back.Principal?.Identity is not ClaimsIdentity told)
            throw new InvalidOperationException("The framework let somebody in and says nothing of them.");
        if (Carried(back, Joins) is { } session)
            await AskAsync(told, Guid.Parse(session), http);
        else if (await ComeAsync(told, http) is Parsed<Person>.Refused(var whyNot))
            await ElsewherePages.SayAsync(http, whyNot);
        else
            http.Response.Redirect(Carried(back, To) ?? "/");
    }

    public static async Task FailedAsync(RemoteFailureContext failed)
    {
        failed.HandleResponse();
        var services = failed.HttpContext.RequestServices;
        var provider = services.GetRequiredService<ElsewhereWays>().Settings?.NameTold;
        services
            .GetRequiredService<ILoggerFactory>()
            .CreateLogger(typeof(ComingBack))
            .LogWarning("A sign-in by way of {Provider} came to nothing: {Why}", provider, failed.Failure?.Message);
        await ElsewherePages.SayAsync(
            failed.HttpContext,
            failed.Failure?.Data["error"] is "access_denied"
                ? $"{provider} did not let you in, or you said no there."
                : $"The sign-in by way of {provider} did not come to its end: it took more than 15 minutes, was begun in another browser, "
                    + "or something else came back than was agreed. Begin it anew."
        );
    }

    private static string? Carried(TicketReceivedContext back, string what) =>
        back.Properties?.Items.TryGetValue(what, out var said) == true ? said : null;

    private static async Task<Parsed<Person>> ComeAsync(ClaimsIdentity told, HttpContext http)
    {
        var services = http.RequestServices;
        var come = await services.GetRequiredService<ComingElsewhere>().ComesAsync(told, http.Address(), http.RequestAborted);
        if (come.Is(out var person, out _))
        {
            var session = await SignInEndpoints.SessionAsync(person, services.GetRequiredService<Sessions>(), http, elsewhere: true);
            services.GetRequiredService<Standings>().Changed(); // their roles may be others now
            await http.SignInAsync(
                IdentityConstants.ApplicationScheme,
                SessionClaims.Of(session, person.Name, IdentityConstants.ApplicationScheme),
                new() { IsPersistent = true }
            );
        }
        return come;
    }

    private static async Task AskAsync(ClaimsIdentity told, Guid session, HttpContext http)
    {
        var services = http.RequestServices;
        if (!ComingElsewhere.Of(told, services.GetRequiredService<ElsewhereWays>()).Is(out var who, out var unusable))
            await ElsewherePages.SayAsync(http, unusable);
        else if (await services.GetRequiredService<Standings>().OfAsync(session, null, http.RequestAborted) is not { } stand)
            await ElsewherePages.SayAsync(http, SignedOut);
        else
            await ElsewherePages.AskAsync(
                http,
                who.Provider,
                (who.FullNameHere, Visible.Text(who.Name ?? who.Subject)),
                (stand.FullName, stand.Name),
                services.GetRequiredService<Joinings>().Back(new(session, who))
            );
    }
}
