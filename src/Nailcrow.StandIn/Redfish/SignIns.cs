using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;

namespace Nailcrow.StandIn.Redfish;

/// <param name="Name">Whom one signs in as.</param>
/// <param name="Secret">Null where it lets in anybody.</param>
internal sealed record SignInSettings(string Name, string? Secret);

/// <summary>Who may ask the simulated management interface: sessions and basic authentication, as the open Redfish schema has them.</summary>
internal sealed class SignIns(SignInSettings settings)
{
    public const string Path = "/redfish/v1/SessionService/Sessions";

    private readonly ConcurrentDictionary<string, string> _tokens = new(); // and the id of each one's session
    private int _begun;

    public void Forget() => _tokens.Clear();

    /// <summary>How many are signed in.</summary>
    public int Count => _tokens.Count;

    /// <summary>Whoever is signed in may end a session.</summary>
    public IResult End(string id) =>
        _tokens.FirstOrDefault(t => t.Value == id) is { Key: { } token } && _tokens.TryRemove(token, out _)
            ? Results.NoContent()
            : Results.NotFound();

    /// <summary>The service root and the door itself answer anybody (DSP0266, "Security").</summary>
    public bool Lets(HttpRequest request) =>
        settings.Secret is null
        || request.Path.Value?.TrimEnd('/') is "/redfish" or "/redfish/v1"
        || (request.Path == Path && request.Method == "POST")
        || (request.Headers["X-Auth-Token"].FirstOrDefault() is { } token && _tokens.ContainsKey(token))
        || request.Headers.Authorization == $"Basic {Convert.ToBase64String(Encoding.UTF8.GetBytes($"{settings.Name}:{settings.Secret}"))}";

    public async Task BeginAsync(HttpContext http)
    {
        var asked = await JsonSerializer.DeserializeAsync<JsonElement>(http.Request.Body, cancellationToken: http.RequestAborted);
        if (Text(asked, "UserName") != settings.Name || Text(asked, "Password") != (settings.Secret ?? ""))
        {
            http.Response.StatusCode = 401;
            return;
        }
        var token = RandomNumberGenerator.GetHexString(32);
        var id = $"{Interlocked.Increment(ref _begun)}";
        _tokens[token] = id;
        http.Response.StatusCode = 201;
        http.Response.Headers["X-Auth-Token"] = token;
        http.Response.Headers.Location = $"{Path}/{id}";
        await http.Response.WriteAsJsonAsync(new { Id = id });
    }

    private static string? Text(JsonElement asked, string name) =>
        asked.ValueKind == JsonValueKind.Object && asked.TryGetProperty(name, out var value) && value.ValueKind == JsonValueKind.String
            ? value.GetString()
            : null;
}
