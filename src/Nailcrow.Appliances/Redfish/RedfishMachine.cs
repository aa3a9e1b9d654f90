using System.Net.Http.Json;
using System.Text.Json;

namespace Nailcrow.Appliances.Redfish;

/// <summary>One machine's resource tree, walked by its own links.</summary>
internal sealed class RedfishMachine
{
    // No enclosure has more bays than this; a longer list is a loop or an attack.
    private const int MostMembers = 500;

    private readonly HttpClient _http;
    private readonly Uri _base;
    private readonly JsonElement _root;

    private RedfishMachine(HttpClient http, Uri address, JsonElement root) => (_http, _base, _root) = (http, address, root);

    public static async Task<RedfishMachine> OpenAsync(HttpClient http, Uri address, CancellationToken ct)
    {
        var root = await GetAsync(http, new Uri(address, "/redfish/v1/"), ct);
        return new(http, address, root);
    }

    /// <summary>The first member of a collection that is named from the service root, or by its own path.</summary>
    public async Task<JsonElement> FirstMemberAsync(string collection, CancellationToken ct)
    {
        var members = await MembersAsync(collection.StartsWith('/') ? collection : LinkOf(_root, collection), ct);
        return members.Count > 0 ? members[0] : throw new RedfishException($"'{collection}' has no members.");
    }

    public async Task<IReadOnlyList<JsonElement>> MembersAsync(string collection, CancellationToken ct)
    {
        var expands = _root.Find("ProtocolFeaturesSupported")?.Find("ExpandQuery")?.Find("NoLinks")?.ValueKind == JsonValueKind.True;
        var list = await ReadAsync(expands ? $"{collection}?$expand=.($levels=1)" : collection, ct);
        var members = list.Items("Members");
        // An expanded member carries its content; one that is only a link has to be read.
        return members.All(m => m.EnumerateObject().Count() > 1) ? members : await ReadAllAsync(list.Links("Members"), ct);
    }

    public async Task<IReadOnlyList<JsonElement>> ReadAllAsync(IReadOnlyList<string> paths, CancellationToken ct)
    {
        if (paths.Count > MostMembers)
            throw new RedfishException($"a list has {paths.Count} members; at most {MostMembers} are read.");
        // Four at a time, as the handler allows: these processors are slow, and slower when crowded.
        var read = new JsonElement[paths.Count];
        await Parallel.ForAsync(
            0,
            paths.Count,
            new ParallelOptions { MaxDegreeOfParallelism = 4, CancellationToken = ct },
            async (i, token) => read[i] = await ReadAsync(paths[i], token)
        );
        return read;
    }

    public string LinkOf(JsonElement resource, string name) =>
        resource.Find(name)?.Text("@odata.id")
        ?? throw new RedfishException($"'{resource.Text("@odata.id") ?? "the service root"}' has no '{name}'.");

    public async Task PatchAsync(string path, Dictionary<string, bool> change, CancellationToken ct)
    {
        using var answer = await _http.PatchAsJsonAsync(Within(path), change, ct);
        answer.EnsureSuccessStatusCode();
    }

    public string LinkOf(string name) => LinkOf(_root, name);

    /// <returns>Where the new resource is: the Location header, or the collection where the machine does not say.</returns>
    public async Task<string> PostAsync(string path, Dictionary<string, string> resource, CancellationToken ct)
    {
        using var answer = await _http.PostAsJsonAsync(Within(path), resource, ct);
        answer.EnsureSuccessStatusCode();
        return answer.Headers.Location is { } at
            ? at.IsAbsoluteUri
                ? at.AbsolutePath
                : at.ToString()
            : path;
    }

    public Task<JsonElement> ReadAsync(string path, CancellationToken ct) => GetAsync(_http, Within(path), ct);

    /// <summary>A machine may only send us on within itself.</summary>
    public Uri Within(string path) =>
        path.StartsWith("/redfish/", StringComparison.Ordinal)
            ? new Uri(_base, path)
            : throw new RedfishException($"it links to '{path}', outside of itself.");

    private static async Task<JsonElement> GetAsync(HttpClient http, Uri uri, CancellationToken ct)
    {
        var bytes = await http.GetByteArrayAsync(uri, ct);
        using var document = JsonDocument.Parse(bytes);
        return document.RootElement.ValueKind == JsonValueKind.Object
            ? document.RootElement.Clone()
            : throw new RedfishException("a resource is not an object.");
    }
}
