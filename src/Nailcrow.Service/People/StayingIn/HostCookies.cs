using Microsoft.AspNetCore.Authentication.Cookies;

namespace Nailcrow.Service.People.StayingIn;

/// <summary>
/// Over TLS the cookie's name begins with <c>__Host-</c>: a browser takes such a one from this very host alone, Secure and for all of its
/// paths, so that no neighbour of the domain can plant one (RFC 6265bis, section 4.1.3.2). Without TLS no browser would take it.
/// </summary>
internal sealed class HostCookies : ICookieManager
{
    private const string Prefix = "__Host-";

    private readonly ChunkingCookieManager _kept = new();

    public string? GetRequestCookie(HttpContext context, string key) => _kept.GetRequestCookie(context, Named(context, key));

    public void AppendResponseCookie(HttpContext context, string key, string? value, CookieOptions options) =>
        _kept.AppendResponseCookie(context, Named(context, key), value, options);

    public void DeleteCookie(HttpContext context, string key, CookieOptions options) =>
        _kept.DeleteCookie(context, Named(context, key), options);

    private static string Named(HttpContext context, string key) => context.Request.IsHttps ? Prefix + key : key;
}
