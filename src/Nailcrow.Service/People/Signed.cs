using System.Security.Claims;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Service.People;

internal static class Signed
{
    /// <summary>The signed-in person as the domain sees them.</summary>
    public static Actor ToActor(this ClaimsPrincipal person) =>
        new(
            person.Identity?.Name
                ?? throw new InvalidOperationException("Nobody is signed in; the fallback policy should have seen to that."),
            [.. Enum.GetValues<Role>().Where(r => person.IsInRole(Words.Of(r)))]
        );
}
