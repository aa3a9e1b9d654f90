using System.Net;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People.StayingIn;

/// <summary>Who is calling, and from where.</summary>
internal static class Calling
{
    private static readonly object Key = new();

    public static Stand? Stand(this HttpContext http) => http.Items.TryGetValue(Key, out var stand) ? stand as Stand : null;

    public static void Stands(this HttpContext http, Stand stand)
    {
        http.Items[Key] = stand;
        http.User = stand.Principal;
    }

    /// <summary>The caller's IP address, an IPv4 one as that.</summary>
    public static string Address(this HttpContext http) =>
        http.Connection.RemoteIpAddress switch
        {
            null => IPAddress.None.ToString(),
            { IsIPv4MappedToIPv6: true } mapped => mapped.MapToIPv4().ToString(),
            var address => address.ToString(),
        };

    /// <summary>Whoever is signed in, as the security log tells of them.</summary>
    public static Doer Doer(this HttpContext http) => new(http.User.ToActor().Name, http.Address());

    /// <summary>Done by a person only: a script's key cannot make more of itself.</summary>
    public static TBuilder NotByKey<TBuilder>(this TBuilder endpoint)
        where TBuilder : IEndpointConventionBuilder
    {
        endpoint.AddEndpointFilter(
            async (call, next) =>
                call.HttpContext.Stand() is { Key: true }
                    ? Host.Answers.Refusals.NotAllowed("A script's key cannot do that; sign in with your name and password.")
                    : await next(call)
        );
        return endpoint;
    }
}
