using System.Security.Claims;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.Authentication.OpenIdConnect;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.Extensions.Options;
using Microsoft.IdentityModel.Protocols.OpenIdConnect;
using Microsoft.IdentityModel.Tokens;
using Nailcrow.Client.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Service.People.Elsewhere;

/// <summary>What became of asking whether somebody was let in on another device.</summary>
internal abstract record DeviceEnd
{
    private DeviceEnd() { }

    public sealed record In(ClaimsIdentity Told) : DeviceEnd;

    public sealed record Waits(int Seconds) : DeviceEnd;

    public sealed record No(string Why) : DeviceEnd;
}

/// <summary>
/// Coming in where there is no browser (RFC 8628): the provider is asked by us and not by the command, so that nobody has to tell each
/// machine about it. What it is asked with is kept by whoever began, sealed.
/// </summary>
internal sealed class DeviceSignIn(
    IOptionsMonitor<OpenIdConnectOptions> options,
    IDataProtectionProvider protection,
    ElsewhereWays ways,
    ILogger<DeviceSignIn> log
)
{
    // As the standard has it where a provider says none (RFC 8628, 3.2).
    private const int UsualPause = 5;

    // A provider whose code lasts longer is asked for another after this.
    private const int LongestSeconds = 1_800;

    private readonly ITimeLimitedDataProtector _seal = protection.CreateProtector("nailcrow.elsewhere.device").ToTimeLimitedDataProtector();

    private OpenIdConnectOptions Options => options.Get(ElsewhereSetUp.Scheme);

    private string Provider => ways.Settings?.NameTold ?? "";

    public async Task<Parsed<DeviceAsked>> AskAsync(CancellationToken ct)
    {
        try
        {
            var known = await KnownAsync(ct);
            if (known.DeviceAuthorizationEndpoint is not { Length: > 0 } at)
                return No($"{Provider} offers no sign-in for devices; sign in with your name and password, or act with a key.");
            using var answer = await SendAsync(at, [new("scope", string.Join(' ', Options.Scope))], ct);
            var said = answer.RootElement;
            if (
                Text(said, "device_code") is not { } code
                || Text(said, "user_code") is not { } typed
                || Text(said, "verification_uri") is not { } uri
            )
                return No(Strange(Text(said, "error")));
            var lasts = Math.Clamp(Number(said, "expires_in") ?? LongestSeconds, 1, LongestSeconds);
            var pause = Math.Clamp(Number(said, "interval") ?? UsualPause, 1, LongestSeconds);
            return new Parsed<DeviceAsked>.Ok(
                new(
                    _seal.Protect($"{pause} {code}", TimeSpan.FromSeconds(lasts)),
                    Visible.Text(typed),
                    Visible.Text(uri),
                    Text(said, "verification_uri_complete") is { } full ? Visible.Text(full) : null,
                    lasts,
                    pause
                )
            );
        }
        catch (Exception e) when (IsAway(e))
        {
            Log(e);
            return No(
                $"{Provider} cannot be reached from here, or does not answer as agreed. Try again, or sign in with your name and password."
            );
        }
    }

    public async Task<DeviceEnd> ShownAsync(string handle, CancellationToken ct)
    {
        if (Opened(handle) is not { } opened)
            return new DeviceEnd.No("That sign-in was not begun here, or too long ago; begin it anew.");
        try
        {
            var known = await KnownAsync(ct);
            using var answer = await SendAsync(
                known.TokenEndpoint,
                [new("grant_type", "urn:ietf:params:oauth:grant-type:device_code"), new("device_code", opened.Code)],
                ct
            );
            return Text(answer.RootElement, "error") switch
            {
                null when Text(answer.RootElement, "id_token") is { } token => await HeldAsync(token, answer.RootElement, known, ct),
                "authorization_pending" => new DeviceEnd.Waits(opened.Pause),
                "slow_down" => new DeviceEnd.Waits(opened.Pause + UsualPause), // RFC 8628, 3.5
                "access_denied" => new DeviceEnd.No($"{Provider} did not let you in, or you said no there."),
                "expired_token" or "invalid_grant" => new DeviceEnd.No("That sign-in was begun too long ago, or used; begin it anew."),
                var other => new DeviceEnd.No(Strange(other)),
            };
        }
        catch (Exception e) when (IsAway(e))
        {
            Log(e);
            return new DeviceEnd.Waits(opened.Pause + UsualPause); // silent once is no refusal: asked more seldom then (RFC 8628, 3.5)
        }
    }

    /// <summary>As the framework's handler does for a browser: whose token it is, for whom, signed by whom; and what else is told of them.</summary>
    private async Task<DeviceEnd> HeldAsync(string token, JsonElement answer, OpenIdConnectConfiguration known, CancellationToken ct)
    {
        var rules = Options.TokenValidationParameters.Clone();
        (rules.ValidIssuer, rules.IssuerSigningKeys) = (known.Issuer, known.SigningKeys);
        var held = await Options.TokenHandler.ValidateTokenAsync(token, rules);
        if (!held.IsValid)
        {
            if (held.Exception is SecurityTokenSignatureKeyNotFoundException)
                Options.ConfigurationManager?.RequestRefresh(); // it has changed its keys: the next one finds them
            log.LogWarning(held.Exception, "{Provider} gave a token that does not hold", Provider);
            return new DeviceEnd.No($"{Provider} gave a token that does not hold; begin anew.");
        }
        var told = held.ClaimsIdentity;
        if (known.UserInfoEndpoint is { Length: > 0 } info && Text(answer, "access_token") is { } access)
            await AddAsync(told, info, access, ct);
        return new DeviceEnd.In(told);
    }

    private async Task AddAsync(ClaimsIdentity told, string info, string access, CancellationToken ct)
    {
        using var ask = new HttpRequestMessage(HttpMethod.Get, info);
        ask.Headers.Authorization = new("Bearer", access);
        using var answer = await Options.Backchannel.SendAsync(ask, ct);
        answer.EnsureSuccessStatusCode();
        using var more = JsonDocument.Parse(await answer.Content.ReadAsStringAsync(ct));
        // Of somebody else is of nobody (OpenID Connect Core 1.0, 5.3.2).
        if (Text(more.RootElement, "sub") != told.FindFirst("sub")?.Value)
            return;
        foreach (var action in Options.ClaimActions)
            action.Run(more.RootElement, told, Options.ClaimsIssuer ?? Options.Authority ?? "");
    }

    private async Task<OpenIdConnectConfiguration> KnownAsync(CancellationToken ct) =>
        await (
            Options.ConfigurationManager ?? throw new InvalidOperationException("The framework was not told where the provider is.")
        ).GetConfigurationAsync(ct);

    private async Task<JsonDocument> SendAsync(string to, KeyValuePair<string, string>[] fields, CancellationToken ct)
    {
        var all = fields.Append(new("client_id", Options.ClientId ?? ""));
        if (Options.ClientSecret is { Length: > 0 } secret)
            all = all.Append(new("client_secret", secret));
        using var form = new FormUrlEncodedContent(all);
        using var answer = await Options.Backchannel.PostAsync(to, form, ct);
        return JsonDocument.Parse(await answer.Content.ReadAsStringAsync(ct));
    }

    private (int Pause, string Code)? Opened(string handle)
    {
        try
        {
            return _seal.Unprotect(handle).Split(' ', 2) is [var pause, var code]
                ? (int.Parse(pause, System.Globalization.CultureInfo.InvariantCulture), code)
                : null;
        }
        catch (Exception e) when (e is CryptographicException or FormatException)
        {
            return null;
        }
    }

    // What the library throws where it cannot be reached is an InvalidOperationException around the reason.
    private static bool IsAway(Exception e) =>
        e
            is HttpRequestException
                or JsonException
                or TaskCanceledException { InnerException: TimeoutException }
                or InvalidOperationException;

    private void Log(Exception e) => log.LogWarning("{Provider} cannot be asked: {Why}", Provider, e.GetBaseException().Message);

    private string Strange(string? error) =>
        $"{Provider} answered otherwise than was agreed{(error is null ? "" : $" ({Visible.Text(error)})")}; whoever runs Nailcrow looks there.";

    private static Parsed<DeviceAsked> No(string why) => new Parsed<DeviceAsked>.Refused(why);

    private static string? Text(JsonElement of, string name) =>
        of.ValueKind == JsonValueKind.Object && of.TryGetProperty(name, out var value) && value.ValueKind == JsonValueKind.String
            ? value.GetString()
            : null;

    private static int? Number(JsonElement of, string name) =>
        of.ValueKind == JsonValueKind.Object && of.TryGetProperty(name, out var value) && value.ValueKind == JsonValueKind.Number
            ? value.TryGetInt32(out var number)
                ? number
                : null
            : null;
}
