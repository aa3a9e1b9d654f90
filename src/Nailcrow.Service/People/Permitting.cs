using Nailcrow.Core.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Service.People;

internal static class Permitting
{
    /// <summary>Lets only those through whose roles Core names for it.</summary>
    public static TBuilder Takes<TBuilder>(this TBuilder endpoint, Permission permission)
        where TBuilder : IEndpointConventionBuilder =>
        endpoint.RequireAuthorization(policy => policy.RequireRole(Permissions.Of(permission).Select(Words.Of)));
}
