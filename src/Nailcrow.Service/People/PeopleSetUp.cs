using Microsoft.AspNetCore.Authentication.BearerToken;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Nailcrow.Service.Host;
using Nailcrow.Store;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People;

/// <summary>Who may come in: a cookie for the console, a bearer token for everything else.</summary>
internal static class PeopleSetUp
{
    // One working day with the way there and back, so that nobody is asked for a password in a cold aisle.
    private static readonly TimeSpan SignedInFor = TimeSpan.FromHours(14);

    public static void AddPeople(this WebApplicationBuilder builder, ServiceSettings settings)
    {
        builder
            .Services.AddIdentityApiEndpoints<Person>(identity =>
            {
                identity.Password.RequiredLength = 10; // length over rules, as NIST SP 800-63B advises
                identity.Password.RequireDigit =
                    identity.Password.RequireLowercase =
                    identity.Password.RequireUppercase =
                    identity.Password.RequireNonAlphanumeric =
                        false;
                identity.Lockout.MaxFailedAccessAttempts = 10;
            })
            .AddEntityFrameworkStores<NailcrowDb>()
            .AddClaimsPrincipalFactory<PersonClaims>();
        builder
            .Services.AddOptions<BearerTokenOptions>(IdentityConstants.BearerScheme)
            .Configure<IDataProtectionProvider>(
                (token, protection) =>
                    (token.BearerTokenExpiration, token.BearerTokenProtector) = (SignedInFor, RememberedTokens.Over(protection))
            );
        builder.Services.ConfigureApplicationCookie(cookie =>
        {
            cookie.ExpireTimeSpan = SignedInFor;
            cookie.Cookie.Name = "nailcrow";
            cookie.Cookie.SameSite = SameSiteMode.Strict; // no other site can act in a signed-in person's name
            cookie.Cookie.HttpOnly = true;
        });
        builder.Services.AddAuthorizationBuilder().SetFallbackPolicy(new AuthorizationPolicyBuilder().RequireAuthenticatedUser().Build());
        builder.Services.AddSingleton<FirstPerson>();
        builder.Services.AddScoped<KnownPeople>();
    }
}
