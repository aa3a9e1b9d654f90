using System.Security.Claims;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.People.Keys;
using Nailcrow.Service.People.SecondFactor;

namespace Nailcrow.Service.People.StayingIn;

/// <summary>
/// Between what somebody shows (a cookie, a token, a key) and what they may do: whether it still counts, and as what. Whatever is
/// being answered when it stops counting ends.
/// </summary>
internal sealed class StillIn(RequestDelegate next, Standings standings, RunningCalls calls, RefusedCalls refused)
{
    private static readonly ClaimsPrincipal Nobody = new(new ClaimsIdentity());

    // What somebody needs to choose a password of their own.
    private static readonly string[] WhileChanging =
    [
        "/api/me",
        "/api/me/password",
        "/api/sign-out",
        "/api/sign-in",
        "/api/sign-in/console",
        "/api/sign-in/elsewhere",
        "/api/sign-in/elsewhere/device",
        "/api/sign-in/elsewhere/device/shown",
        "/api/sign-in/passkey",
        "/api/sign-in/passkey/console",
    ];

    public async Task InvokeAsync(HttpContext http)
    {
        if (await StandAsync(http) is not { } stand)
        {
            http.User = Nobody;
            await next(http);
            return;
        }
        http.Stands(stand);
        standings.Seen(stand);
        if (WhyNot(stand, http) is { } whyNot)
        {
            await Refusals.NotAllowed(whyNot).ExecuteAsync(http);
            return;
        }
        using var running = calls.Begin(http, stand);
        try
        {
            await next(http);
            if (http.Response.StatusCode == StatusCodes.Status403Forbidden)
                await refused.NoteAsync(http, stand);
        }
        catch (OperationCanceledException) when (running.WasEnded && !http.Response.HasStarted)
        {
            await TypedResults
                .Problem("You were signed out while this was being answered; sign in again.", statusCode: 401, title: "Not signed in")
                .ExecuteAsync(http);
        }
    }

    private async ValueTask<Stand?> StandAsync(HttpContext http)
    {
        if (KeyText.Of(http.Request.Headers.Authorization) is { } key)
            return await standings.OfAsync(key.Id, key.Hash, http.RequestAborted);
        return SessionClaims.SessionOf(http.User) is { } session ? await standings.OfAsync(session, null, http.RequestAborted) : null;
    }

    private static bool WhileSettingUp(string path) =>
        WhileChanging.Contains(path, StringComparer.OrdinalIgnoreCase)
        || path.StartsWith(SecondFactorEndpoints.Own, StringComparison.OrdinalIgnoreCase);

    private static string? WhyNot(Stand stand, HttpContext http)
    {
        var path = http.Request.Path.Value ?? "";
        if (!path.StartsWith("/api/", StringComparison.OrdinalIgnoreCase))
            return null;
        if (stand.MustChange && !WhileChanging.Contains(path, StringComparer.OrdinalIgnoreCase))
            return "Your password was given to you by somebody else; choose one of your own first: on the console's page, or with "
                + "'nailcrow password' (PUT /api/me/password).";
        if (stand.MustSetUp && !WhileSettingUp(path))
            return "Your roles take a second factor, and you have none yet: set one up first, on the console's page, or with "
                + "'nailcrow second-factor codes' (POST /api/me/second-factor/codes).";
        return stand.As.ReadOnly && !HttpMethods.IsGet(http.Request.Method) && !HttpMethods.IsHead(http.Request.Method)
            ? "This key reads only; make one that also writes, or sign in."
            : null;
    }
}
