using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.OpenIdConnect;
using Microsoft.IdentityModel.Protocols.OpenIdConnect;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Wire;

namespace Nailcrow.Service.People.Elsewhere;

/// <summary>
/// Coming in by a provider of sign-ins: OpenID Connect with a code and PKCE (RFC 7636), by the framework's own handler. What is asked of
/// whom it lets in is ours.
/// </summary>
internal static class ElsewhereSetUp
{
    public const string Scheme = "elsewhere";

    /// <summary>Where the provider sends the browser back to; it has to be known there.</summary>
    public const string Back = "/api/sign-in/elsewhere/back";

    // Long enough to find the telephone and type a password twice.
    private static readonly TimeSpan Lasts = TimeSpan.FromMinutes(15);

    public static void AddElsewhere(this WebApplicationBuilder builder, ElsewhereSettings? settings)
    {
        // What cannot be used is told at the start, all of it at once.
        var usable = settings is not null && !settings.Problems().Any() ? settings : null;
        builder.Services.AddSingleton(new ElsewhereWays(usable));
        builder.Services.AddSingleton<ComingElsewhere>();
        builder.Services.AddSingleton<DeviceSignIn>();
        builder.Services.AddSingleton<Joinings>();
        builder.Services.AddSingleton<DoorPace>();
        if (usable is not null)
            Add(builder, usable);
    }

    private static void Add(WebApplicationBuilder builder, ElsewhereSettings settings)
    {
        builder.Services.AddAuthentication().AddOpenIdConnect(Scheme, settings.NameTold, options => Configure(options, settings));
    }

    private static void Configure(OpenIdConnectOptions options, ElsewhereSettings settings)
    {
        (options.Authority, options.ClientId, options.ClientSecret) = (settings.Issuer, settings.ClientId, settings.Secret());
        options.RequireHttpsMetadata = !new Uri(settings.Issuer).IsLoopback;
        options.BackchannelTimeout = TimeSpan.FromSeconds(settings.AnswerWithinSeconds);
        options.RemoteAuthenticationTimeout = Lasts;
        options.ResponseType = OpenIdConnectResponseType.Code;
        // Back by a link and not by a form of the provider's page: no cookie has to be sent along with another site's writing then.
        options.ResponseMode = OpenIdConnectResponseMode.Query;
        (options.CorrelationCookie.SameSite, options.NonceCookie.SameSite) = (SameSiteMode.Lax, SameSiteMode.Lax);
        options.CorrelationCookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
        options.NonceCookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
        options.UsePkce = true;
        options.MapInboundClaims = false;
        options.GetClaimsFromUserInfoEndpoint = true; // some tell groups there alone
        options.ClaimActions.MapUniqueJsonKey("preferred_username", "preferred_username");
        options.ClaimActions.MapJsonKey(settings.RolesClaim, settings.RolesClaim); // one word, or many
        options.SaveTokens = false; // nothing is asked of the provider in anybody's name
        options.DisableTelemetry = true;
        options.CallbackPath = Back;
        options.SignedOutCallbackPath = options.RemoteSignOutPath = $"{Back}/none"; // nothing is sent there
        options.Scope.Add("email");
        foreach (var scope in settings.Scopes)
            options.Scope.Add(scope);
        options.Events.OnRedirectToIdentityProvider = asked =>
        {
            // Where it was told we are, whatever the Host header says.
            asked.ProtocolMessage.RedirectUri = asked
                .HttpContext.RequestServices.GetRequiredService<OurAddress>()
                .Of(Back.TrimStart('/'))
                .AbsoluteUri;
            return Task.CompletedTask;
        };
        options.Events.OnTicketReceived = ComingBack.InAsync;
        options.Events.OnRemoteFailure = ComingBack.FailedAsync;
    }
}

/// <summary>What is offered at the door beside name and password.</summary>
internal sealed record ElsewhereWays(ElsewhereSettings? Settings);
