using Microsoft.AspNetCore.Authentication.BearerToken;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Nailcrow.Service.Host;
using Nailcrow.Service.People.Elsewhere;
using Nailcrow.Service.People.Leaving;
using Nailcrow.Service.People.SecondFactor;
using Nailcrow.Service.People.SigningIn;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People;

/// <summary>Who may come in: a cookie for the console, a bearer token for everything else, each of a session that can be ended.</summary>
internal static class PeopleSetUp
{
    // A long working day, so that nobody is asked for a password in a cold aisle; the most that OWASP ASVS 4, 3.3.2 allows.
    internal static readonly TimeSpan SignedInFor = TimeSpan.FromHours(12);

    public static void AddPeople(this WebApplicationBuilder builder, ServiceSettings settings)
    {
        builder.Services.AddIdentityApiEndpoints<Person>().AddEntityFrameworkStores<NailcrowDb>();
        builder.Services.Configure<PasswordHasherOptions>(hashing => hashing.IterationCount = settings.PasswordRounds);
        builder
            .Services.AddOptions<BearerTokenOptions>(IdentityConstants.BearerScheme)
            .Configure<IDataProtectionProvider>(
                (token, protection) =>
                    (token.BearerTokenExpiration, token.BearerTokenProtector) = (SignedInFor, RememberedTokens.Over(protection))
            );
        builder.Services.ConfigureApplicationCookie(cookie =>
        {
            cookie.ExpireTimeSpan = SignedInFor;
            cookie.SlidingExpiration = false; // the session has an end, and the cookie the same
            cookie.Cookie.Name = "nailcrow";
            cookie.CookieManager = new HostCookies();
            cookie.Cookie.SameSite = SameSiteMode.Strict; // no other site can act in a signed-in person's name
            cookie.Cookie.HttpOnly = true;
            cookie.Events.OnValidatePrincipal = _ => Task.CompletedTask; // StillIn asks about the session, on every call
        });
        builder.Services.AddAuthorizationBuilder().SetFallbackPolicy(new AuthorizationPolicyBuilder().RequireAuthenticatedUser().Build());
        builder.Services.AddSingleton<FirstPerson>();
        builder.Services.AddSingleton<KnownPeople>();
        builder.Services.AddSingleton<PasswordHashing>();
        builder.Services.AddSingleton<FirstPasswords>();
        builder.Services.AddSingleton<SignInLimits>();
        builder.Services.AddSingleton<SignIns>();
        builder.Services.AddSingleton<OwnPasswords>();
        builder.Services.AddSingleton(new SecondFactorRules(settings));
        builder.Services.AddSingleton<RecoveryCodes>();
        builder.Services.AddSingleton<SecondFactorCheck>();
        builder.Services.AddSingleton<Passkeys>();
        builder.Services.Configure<IdentityPasskeyOptions>(passkeys =>
        {
            // A passkey that the device let out after looking who holds it is two factors, and says by itself whose it is.
            (passkeys.UserVerificationRequirement, passkeys.ResidentKeyRequirement) = ("required", "required");
            passkeys.ServerDomain = settings.PublicUrl is { } url ? new Uri(url).Host : null;
        });
        builder.AddElsewhere(settings.Elsewhere);
        builder.Services.AddSingleton<Standings>();
        builder.Services.AddSingleton<RunningCalls>();
        builder.Services.AddSingleton<RefusedCalls>();
        builder.Services.AddSingleton<Held>();
        builder.Services.AddHostedService<News.SignInNewsRound>();
        builder.Services.AddHostedService<StayingRound>();
        builder.Services.AddSingleton<IPasswordHasher<Person>, PasswordHasher<Person>>();
    }
}
