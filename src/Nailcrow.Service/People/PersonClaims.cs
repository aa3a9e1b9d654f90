using System.Security.Claims;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People;

/// <summary>Puts a person's roles into what they are signed in with.</summary>
internal sealed class PersonClaims(UserManager<Person> people, IOptions<IdentityOptions> options)
    : UserClaimsPrincipalFactory<Person>(people, options)
{
    public const string FullName = "full_name";

    protected override async Task<ClaimsIdentity> GenerateClaimsAsync(Person user)
    {
        var identity = await base.GenerateClaimsAsync(user);
        identity.AddClaim(new(FullName, user.FullName));
        foreach (var role in user.Roles())
            identity.AddClaim(new(identity.RoleClaimType, Words.Of(role)));
        return identity;
    }
}

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
