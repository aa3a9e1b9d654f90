using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Wire;

namespace Nailcrow.Service.Host;

/// <summary>
/// A browser sends the cookie whichever page asks it to write; it also says which page that was (Origin, RFC 6454, and Fetch Metadata).
/// Only pages of ours write with it. Whoever sends a token of their own is no browser that somebody else leads.
/// </summary>
internal static class OwnPages
{
    public static void UseOwnPagesOnly(this WebApplication app) =>
        app.Use(
            (http, next) =>
                IsReading(http.Request.Method) || http.Request.Headers.Authorization.Count > 0 || IsOurs(http.Request)
                    ? next(http)
                    : Refusals
                        .NotAllowed("That was asked for by a page of another site; only the console's own pages write with its cookie.")
                        .ExecuteAsync(http)
        );

    /// <summary>What is answered about the job stays in no cache on the way, and on no disk of a shared computer (OWASP ASVS 4, 8.2.1).</summary>
    public static void UseNoStore(this WebApplication app) =>
        app.Use(
            (http, next) =>
            {
                if (!http.Request.Path.StartsWithSegments("/api"))
                    return next(http);
                http.Response.Headers.CacheControl = "no-store";
                http.Response.OnStarting(NotAPage, http.Response);
                return next(http);
            }
        );

    /// <summary>
    /// What is for programs is never shown as a page, whatever somebody wrote into it (OWASP ASVS 4.0.3, 14.4.2). Why a paper is not to be had
    /// is a sentence for whoever followed a link to it, and would be a file in their downloads.
    /// </summary>
    private static Task NotAPage(object answer)
    {
        if (answer is HttpResponse { ContentType: { } type, Headers: { ContentDisposition.Count: 0 } headers } && IsForPrograms(type))
            headers.ContentDisposition = "attachment; filename=\"answer.json\"";
        return Task.CompletedTask;
    }

    private static bool IsForPrograms(string type) => type.StartsWith("application/json", StringComparison.OrdinalIgnoreCase);

    private static bool IsReading(string method) =>
        HttpMethods.IsGet(method) || HttpMethods.IsHead(method) || HttpMethods.IsOptions(method);

    private static bool IsOurs(HttpRequest request)
    {
        if (request.Headers["Sec-Fetch-Site"] is [var site] && site is not ("same-origin" or "none"))
            return false;
        return request.Headers.Origin switch
        {
            [] => true, // no browser: those say it with each write
            [var origin] => Uri.TryCreate(origin, UriKind.Absolute, out var from) && IsHere(from, request),
            _ => false,
        };
    }

    /// <summary>The address that was called, or the one that people were told: a proxy in between may call by another.</summary>
    private static bool IsHere(Uri from, HttpRequest request) =>
        string.Equals(from.Authority, Authority(request), StringComparison.OrdinalIgnoreCase)
        || from.GetLeftPart(UriPartial.Authority)
            == request.HttpContext.RequestServices.GetRequiredService<OurAddress>().Root.GetLeftPart(UriPartial.Authority);

    /// <summary>Without the port that its scheme has anyway.</summary>
    private static string Authority(HttpRequest request) =>
        Uri.TryCreate($"{request.Scheme}://{request.Host}", UriKind.Absolute, out var here) ? here.Authority : request.Host.ToString();
}
