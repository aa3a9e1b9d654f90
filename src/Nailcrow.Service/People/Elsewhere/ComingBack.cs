using System.Security.Claims;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Identity;
using Nailcrow.Core.Terms;
using Nailcrow.Service.People.SigningIn;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People.Elsewhere;

/// <summary>The browser is back from the provider, with what the framework has looked at: the code, its proof key, the token's signature.</summary>
internal static class ComingBack
{
    /// <summary>In the state that the browser carries, sealed: the session in which somebody joins.</summary>
    public const string Joins = "nailcrow.joins";

    /// <summary>In the same: where they go then.</summary>
    public const string To = "nailcrow.to";

    public static async Task InAsync(TicketReceivedContext back)
    {
        var http = back.HttpContext;
        back.HandleResponse();
        if (back.Principal?.Identity is not ClaimsIdentity told)
            throw new InvalidOperationException("The framework let somebody in and says nothing of them.");
        var come =
            back.Properties?.Items.TryGetValue(Joins, out var session) == true
                ? await JoinAsync(told, Guid.Parse(session ?? ""), http)
                : await ComeAsync(told, http);
        if (come is Parsed<Person>.Refused(var whyNot))
            await SayAsync(http, whyNot);
        else
            http.Response.Redirect(back.Properties?.Items.TryGetValue(To, out var to) == true && to is not null ? to : "/");
    }

    public static async Task FailedAsync(RemoteFailureContext failed)
    {
        failed.HandleResponse();
        var ways = failed.HttpContext.RequestServices.GetRequiredService<ElsewhereWays>();
        failed
            .HttpContext.RequestServices.GetRequiredService<ILoggerFactory>()
            .CreateLogger(typeof(ComingBack))
            .LogWarning("A sign-in by way of {Provider} came to nothing: {Why}", ways.Settings?.NameTold, failed.Failure?.Message);
        await SayAsync(
            failed.HttpContext,
            failed.Failure?.Data["error"] is "access_denied"
                ? $"{ways.Settings?.NameTold} did not let you in, or you said no there."
                : $"The sign-in by way of {ways.Settings?.NameTold} did not come to its end: it took more than 15 minutes, was begun in another "
                    + "browser, or something else came back than was agreed. Begin it anew."
        );
    }

    /// <summary>A page of its own, since whoever reads it is not in.</summary>
    public static async Task SayAsync(HttpContext http, string sentence, int status = StatusCodes.Status403Forbidden)
    {
        (http.Response.StatusCode, http.Response.ContentType) = (status, "text/html; charset=utf-8");
        await http.Response.WriteAsync(
            $"""
            <!doctype html>
            <html lang="en">
            <meta charset="utf-8">
            <meta name="viewport" content="width=device-width">
            <title>Not signed in · Nailcrow</title>
            <h1>Not signed in</h1>
            <p>{HtmlEncoder.Default.Encode(sentence)}</p>
            <p><a href="/">Back to the door</a></p>
            </html>
            """,
            http.RequestAborted
        );
    }

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

    private static async Task<Parsed<Person>> JoinAsync(ClaimsIdentity told, Guid session, HttpContext http)
    {
        var services = http.RequestServices;
        return await services.GetRequiredService<Standings>().OfAsync(session, null, http.RequestAborted) is { } stand
            ? await services.GetRequiredService<ComingElsewhere>().JoinsAsync(told, new(stand.Name, http.Address()), http.RequestAborted)
            : new Parsed<Person>.Refused("You were signed out here in the meantime; sign in and begin anew.");
    }
}
