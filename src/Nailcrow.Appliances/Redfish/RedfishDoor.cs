using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Nailcrow.Appliances.Reaching;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Redfish;

/// <summary>Calls to one machine: within itself, signed in where somebody said how, and only where its certificate is known.</summary>
internal sealed class RedfishDoor(HttpClient http, string asset, Uri address, MachineKey key, MachineSessions sessions)
{
    private const string Root = "/redfish/v1/";
    private const string Token = "X-Auth-Token";

    public MachineKey Key => key;

    /// <summary>The service root answers anybody (DSP0266, "Security"): no secret goes anywhere before it did.</summary>
    public async Task<JsonElement> RootAsync(CancellationToken ct)
    {
        using var answer = await http.SendAsync(Asking(HttpMethod.Get, Root, null), ct);
        return await ReadAsync(answer, ct);
    }

    public async Task<JsonElement> GetAsync(string path, CancellationToken ct)
    {
        using var answer = await SendAsync(HttpMethod.Get, path, null, HttpCompletionOption.ResponseContentRead, ct);
        return await ReadAsync(answer, ct);
    }

    public async Task PatchAsync(string path, Dictionary<string, bool> change, CancellationToken ct)
    {
        using var answer = await SendAsync(
            HttpMethod.Patch,
            path,
            () => JsonContent.Create(change),
            HttpCompletionOption.ResponseContentRead,
            ct
        );
        answer.EnsureSuccessStatusCode();
    }

    /// <returns>Where the new resource is: the Location header, or the collection where the machine does not say.</returns>
    public async Task<string> PostAsync(string path, Dictionary<string, string> resource, CancellationToken ct)
    {
        using var answer = await SendAsync(
            HttpMethod.Post,
            path,
            () => JsonContent.Create(resource),
            HttpCompletionOption.ResponseContentRead,
            ct
        );
        answer.EnsureSuccessStatusCode();
        return answer.Headers.Location is { } at
            ? at.IsAbsoluteUri
                ? at.AbsolutePath
                : at.ToString()
            : path;
    }

    /// <summary>An answer that goes on for as long as the machine has something to say.</summary>
    public async Task<Stream> StreamAsync(string path, CancellationToken ct)
    {
        var answer = await SendAsync(HttpMethod.Get, path, null, HttpCompletionOption.ResponseHeadersRead, ct);
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadAsStreamAsync(ct);
    }

    /// <summary>The same machine over another client, such as one without a deadline.</summary>
    public RedfishDoor By(HttpClient other) => new(other, asset, address, key, sessions);

    private async Task<HttpResponseMessage> SendAsync(
        HttpMethod method,
        string path,
        Func<HttpContent>? content,
        HttpCompletionOption completion,
        CancellationToken ct
    )
    {
        if (key.Problem is { } problem)
            throw new RedfishException(problem);
        var token = await TokenAsync(ct);
        var answer = await http.SendAsync(SignedIn(Asking(method, path, content?.Invoke()), token), completion, ct);
        if (answer.StatusCode != HttpStatusCode.Unauthorized || token is null)
            return answer;
        // A session ends by itself when the machine restarts or nobody asks for a while; a new one is tried once.
        answer.Dispose();
        sessions.Ended(asset, Origin, token);
        return await http.SendAsync(SignedIn(Asking(method, path, content?.Invoke()), await TokenAsync(ct)), completion, ct);
    }

    private string Origin => MachineAddress.Origin(address);

    private HttpRequestMessage Asking(HttpMethod method, string path, HttpContent? content)
    {
        var request = new HttpRequestMessage(method, Within(path)) { Content = content };
        request.Options.Set(MachineConnections.Trusted, key.Trusted);
        return request;
    }

    private HttpRequestMessage SignedIn(HttpRequestMessage request, string? token)
    {
        if (token is not null)
            request.Headers.Add(Token, token);
        else if (key is { Name: { } name, Way: SignInWay.Basic })
            request.Headers.Authorization = new AuthenticationHeaderValue(
                "Basic",
                Convert.ToBase64String(Encoding.UTF8.GetBytes($"{name}:{key.Secret}"))
            );
        return request;
    }

    private async Task<string?> TokenAsync(CancellationToken ct) =>
        key is { Name: { } name, Way: SignInWay.Session }
            ? await sessions.OfAsync(asset, Origin, key.Version, () => BeginAsync(name, ct), ct)
            : null;

    private async Task<MachineSession> BeginAsync(string name, CancellationToken ct)
    {
        var root = await RootAsync(ct);
        var path = root.Find("Links")?.Find("Sessions")?.Text("@odata.id") ?? $"{Root}SessionService/Sessions";
        using var answer = await http.SendAsync(
            Asking(
                HttpMethod.Post,
                path,
                JsonContent.Create(new Dictionary<string, string?> { ["UserName"] = name, ["Password"] = key.Secret })
            ),
            ct
        );
        if (answer.StatusCode is HttpStatusCode.NotFound or HttpStatusCode.MethodNotAllowed or HttpStatusCode.NotImplemented)
            throw new RedfishException("it has no sessions to sign in to; give its sign-in anew, with the way 'basic'.");
        if (answer.StatusCode == HttpStatusCode.BadRequest)
            throw new HttpRequestException(HttpRequestError.Unknown, "", null, HttpStatusCode.Unauthorized); // some say so for a wrong secret
        answer.EnsureSuccessStatusCode();
        return answer.Headers.TryGetValues(Token, out var given) && given.FirstOrDefault() is { Length: > 0 } token
            ? new(token, Ending(answer.Headers.Location, token))
            : throw new RedfishException($"it began a session and gave no {Token}.");
    }

    /// <summary>A session is a resource, and ends by being deleted (DSP0266, "Redfish session login authentication").</summary>
    private Func<HttpRequestMessage>? Ending(Uri? session, string token) =>
        session is not null
        && (session.IsAbsoluteUri ? session.AbsolutePath : session.ToString()) is var path
        && path.StartsWith("/redfish/", StringComparison.Ordinal)
            ? () => SignedIn(Asking(HttpMethod.Delete, path, null), token)
            : null;

    /// <summary>A machine may only send us on within itself.</summary>
    private Uri Within(string path) =>
        path.StartsWith("/redfish/", StringComparison.Ordinal)
        && new Uri(address, path) is { } within
        && MachineAddress.Origin(within) == Origin
        && within.AbsolutePath.StartsWith("/redfish/", StringComparison.Ordinal)
            ? within
            : throw new RedfishException($"it links to '{path}', outside of itself.");

    private static async Task<JsonElement> ReadAsync(HttpResponseMessage answer, CancellationToken ct)
    {
        answer.EnsureSuccessStatusCode();
        using var document = WholeJson.Parse(await answer.Content.ReadAsByteArrayAsync(ct));
        return document.RootElement.ValueKind == JsonValueKind.Object
            ? document.RootElement.Clone()
            : throw new RedfishException("a resource is not an object.");
    }
}
