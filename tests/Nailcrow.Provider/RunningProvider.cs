using System.Security.Claims;
using Microsoft.AspNetCore;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using OpenIddict.Abstractions;
using OpenIddict.Server.AspNetCore;
using static OpenIddict.Abstractions.OpenIddictConstants;

namespace Nailcrow.Provider;

/// <summary>Who has signed in at the provider, as it tells of them.</summary>
public sealed record SignedInThere(string Subject, string Name, string FullName, string? Mail, params string[] Groups);

/// <summary>
/// A firm's provider of sign-ins on loopback (OpenID Connect), made of a library that others run theirs with. Whoever is sent to it is
/// signed in there as <see cref="Who"/> already.
/// </summary>
public sealed class RunningProvider : IAsyncDisposable
{
    public const string ClientId = "nailcrow";
    public const string Secret = "what-the-provider-gave-us";

    private const string Scheme = OpenIddictServerAspNetCoreDefaults.AuthenticationScheme;

    private readonly WebApplication _app;
    private readonly SqliteConnection _kept;

    private readonly string _secretFile = Path.GetTempFileName();

    private RunningProvider(WebApplication app, SqliteConnection kept)
    {
        (_app, _kept) = (app, kept);
        File.WriteAllText(_secretFile, Secret + "\n");
    }

    public Uri Address => new(_app.Urls.First() + "/");

    /// <summary>Null: whoever is sent there says no.</summary>
    public SignedInThere? Who { get; set; }

    /// <summary>It drops whoever asks, without a word.</summary>
    public bool IsSilent { get; set; }

    /// <summary>Groups are told where the token's owner is asked about, and not in the token itself.</summary>
    public bool TellsGroupsLater { get; set; }

    public static async Task<RunningProvider> StartAsync()
    {
        var kept = new SqliteConnection("Data Source=:memory:");
        await kept.OpenAsync();
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        builder.Services.AddDbContext<ProviderDb>(db => db.UseSqlite(kept).UseOpenIddict());
        builder.Services.AddAuthorization();
        builder
            .Services.AddOpenIddict()
            .AddCore(core => core.UseEntityFrameworkCore().UseDbContext<ProviderDb>())
            .AddServer(server =>
                server
                    .SetAuthorizationEndpointUris("authorize")
                    .SetTokenEndpointUris("token")
                    .SetUserInfoEndpointUris("who")
                    .SetDeviceAuthorizationEndpointUris("device")
                    .SetEndUserVerificationEndpointUris("type-it")
                    .AllowAuthorizationCodeFlow()
                    .RequireProofKeyForCodeExchange()
                    .AllowDeviceAuthorizationFlow()
                    .AddEphemeralEncryptionKey()
                    .AddEphemeralSigningKey()
                    .RegisterScopes(Scopes.Profile, Scopes.Email)
                    .UseAspNetCore()
                    .EnableAuthorizationEndpointPassthrough()
                    .EnableTokenEndpointPassthrough()
                    .EnableUserInfoEndpointPassthrough()
                    .EnableEndUserVerificationEndpointPassthrough()
                    .DisableTransportSecurityRequirement()
            );
        var app = builder.Build();
        var provider = new RunningProvider(app, kept);
        app.Use(
            (http, next) =>
            {
                if (!provider.IsSilent)
                    return next(http);
                http.Abort();
                return Task.CompletedTask;
            }
        );
        app.UseAuthentication();
        app.MapMethods("/authorize", ["GET", "POST"], (Delegate)provider.Authorize);
        app.MapPost("/token", (Delegate)GiveAsync);
        app.MapGet("/who", (Delegate)provider.TellAsync);
        app.MapMethods("/type-it", ["GET", "POST"], (Delegate)provider.TypedAsync);
        using (var scope = app.Services.CreateScope())
            await scope.ServiceProvider.GetRequiredService<ProviderDb>().Database.EnsureCreatedAsync();
        await app.StartAsync();
        return provider;
    }

    /// <summary>It lets people into this service from now on.</summary>
    public async Task KnowsAsync(Uri service)
    {
        using var scope = _app.Services.CreateScope();
        await scope
            .ServiceProvider.GetRequiredService<IOpenIddictApplicationManager>()
            .CreateAsync(
                new OpenIddictApplicationDescriptor
                {
                    ClientId = ClientId,
                    ClientSecret = Secret,
                    ConsentType = ConsentTypes.Implicit,
                    RedirectUris = { new Uri(service, "api/sign-in/elsewhere/back") },
                    Permissions =
                    {
                        Permissions.Endpoints.Authorization,
                        Permissions.Endpoints.Token,
                        Permissions.Endpoints.DeviceAuthorization,
                        Permissions.GrantTypes.AuthorizationCode,
                        Permissions.GrantTypes.DeviceCode,
                        Permissions.ResponseTypes.Code,
                        Permissions.Scopes.Profile,
                        Permissions.Scopes.Email,
                    },
                    Requirements = { Requirements.Features.ProofKeyForCodeExchange },
                }
            );
    }

    /// <summary>What a service is started with to come in by it.</summary>
    public IReadOnlyList<string> Settings =>
        [
            "--Nailcrow:Elsewhere:Issuer",
            Address.ToString(),
            "--Nailcrow:Elsewhere:ClientId",
            ClientId,
            "--Nailcrow:Elsewhere:SecretFile",
            _secretFile,
            "--Nailcrow:Elsewhere:Name",
            "Fenwright sign-in",
            "--Nailcrow:Elsewhere:RolesClaim",
            "groups",
            "--Nailcrow:Elsewhere:Roles:tide-crew",
            "engineer",
            "--Nailcrow:Elsewhere:Roles:head-office",
            "admin",
            "--Nailcrow:Elsewhere:Roles:store-room",
            "stores",
            "--Nailcrow:Elsewhere:AnswerWithinSeconds",
            "240", // its first answers are compiled while somebody waits, on whatever is left of a processor
        ];

    public async ValueTask DisposeAsync()
    {
        await _app.DisposeAsync();
        await _kept.DisposeAsync();
        File.Delete(_secretFile);
    }

    private IResult Authorize(HttpContext http) =>
        Who is null
            ? Denied()
            : Results.SignIn(Principal(http.GetOpenIddictServerRequest()?.GetScopes() ?? []), authenticationScheme: Scheme);

    private async Task<IResult> TypedAsync(HttpContext http)
    {
        if (await http.AuthenticateAsync(Scheme) is not { Succeeded: true, Principal: { } asked })
            return Results.Text("That code is none of ours.", statusCode: StatusCodes.Status400BadRequest);
        return Who is null
            ? Denied()
            : Results.SignIn(Principal(asked.GetScopes()), new AuthenticationProperties { RedirectUri = "/" }, Scheme);
    }

    private static async Task<IResult> GiveAsync(HttpContext http) =>
        await http.AuthenticateAsync(Scheme) is { Principal: { } who } ? Results.SignIn(who, authenticationScheme: Scheme) : Denied();

    private async Task<IResult> TellAsync(HttpContext http)
    {
        if (await http.AuthenticateAsync(Scheme) is not { Principal: { } who })
            return Denied();
        var told = new Dictionary<string, object> { [Claims.Subject] = who.GetClaim(Claims.Subject) ?? "" };
        if (Who is { Groups: [_, ..] groups })
            told["groups"] = groups;
        return Results.Json(told);
    }

    private static IResult Denied() =>
        Results.Forbid(
            new AuthenticationProperties(
                new Dictionary<string, string?> { [OpenIddictServerAspNetCoreConstants.Properties.Error] = Errors.AccessDenied }
            ),
            [Scheme]
        );

    private ClaimsPrincipal Principal(IEnumerable<string> scopes)
    {
        var who = Who ?? throw new InvalidOperationException("Nobody is signed in there.");
        var identity = new ClaimsIdentity("provider", Claims.Name, Claims.Role);
        identity.SetClaim(Claims.Subject, who.Subject);
        identity.SetClaim(Claims.PreferredUsername, who.Name);
        identity.SetClaim(Claims.Name, who.FullName);
        identity.SetClaim(Claims.Email, who.Mail);
        if (!TellsGroupsLater)
            identity.SetClaims("groups", [.. who.Groups]);
        identity.SetScopes(scopes);
        identity.SetDestinations(_ => [Destinations.AccessToken, Destinations.IdentityToken]);
        return new ClaimsPrincipal(identity);
    }
}

internal sealed class ProviderDb(DbContextOptions<ProviderDb> options) : DbContext(options);
