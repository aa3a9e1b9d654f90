using System.Text.Json;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Redfish;

/// <summary>One machine's resource tree, walked by its own links. What of it cannot be read is a gap, told with the rest.</summary>
internal sealed class RedfishMachine
{
    // No appliance has more drives than this; a longer list is a loop or an attack.
    private const int MostMembers = 1_500;
    private const int MostPages = 50;
    private const int MostGaps = 50;
    private const int LongestGap = 300;

    private readonly RedfishDoor _door;
    private readonly List<string> _gaps = [];

    private RedfishMachine(RedfishDoor door, JsonElement root) => (_door, Root) = (door, root);

    public static async Task<RedfishMachine> OpenAsync(RedfishDoor door, CancellationToken ct) => new(door, await door.RootAsync(ct));

    public JsonElement Root { get; }

    public RedfishDoor Door => _door;

    /// <summary>What could not be read, each as a sentence.</summary>
    public IReadOnlyList<string> Gaps
    {
        get
        {
            lock (_gaps)
                return [.. _gaps];
        }
    }

    /// <summary>As they are told and kept: a machine that says much of itself does not fill the record.</summary>
    public IReadOnlyList<string> GapsTold =>
        Gaps is { Count: > MostGaps } many ? [.. many.Take(MostGaps), $"{many.Count - MostGaps} more could not be read."] : Gaps;

    /// <summary>Notes what could not be read, or made sense of.</summary>
    public void Missed(string sentence)
    {
        lock (_gaps)
            _gaps.Add(Visible.Text(Shortened.To(sentence, LongestGap)));
    }

    /// <summary>All members of a collection that can be read, across its pages.</summary>
    public async Task<IReadOnlyList<JsonElement>> MembersAsync(string collection, CancellationToken ct)
    {
        var expands = Root.Find("ProtocolFeaturesSupported")?.Find("ExpandQuery")?.Find("NoLinks")?.ValueKind == JsonValueKind.True;
        var members = new List<JsonElement>();
        var next = expands ? $"{collection}?$expand=.($levels=1)" : collection;
        for (var page = 1; next is not null; page++)
        {
            if (page > MostPages)
                throw new RedfishException($"'{collection}' has more than {MostPages} pages.");
            var list = await ReadAsync(next, ct);
            members.AddRange(list.Items("Members"));
            Few(members.Count);
            next = list.Text("Members@odata.nextLink");
        }
        // An expanded member carries its content; one that is only a link has to be read.
        var read = await ReadAllAsync([.. members.Where(IsLink).Select(m => m.Required("@odata.id"))], ct);
        var byPath = read.GroupBy(r => r.Path).ToDictionary(r => r.Key, r => r.First().Resource);
        return
        [
            .. members
                .Select(m => IsLink(m) ? byPath.GetValueOrDefault(m.Required("@odata.id")) : m)
                .Where(m => m.ValueKind == JsonValueKind.Object),
        ];
    }

    /// <summary>Those of these that can be read.</summary>
    public async Task<IReadOnlyList<(string Path, JsonElement Resource)>> ReadAllAsync(IReadOnlyList<string> paths, CancellationToken ct)
    {
        Few(paths.Count);
        // Four at a time: these processors are slow, and slower when crowded.
        var read = new JsonElement[paths.Count];
        await Parallel.ForAsync(
            0,
            paths.Count,
            new ParallelOptions { MaxDegreeOfParallelism = 4, CancellationToken = ct },
            async (i, token) => read[i] = await TryReadAsync(paths[i], token) ?? default
        );
        return [.. paths.Zip(read).Where(r => r.Second.ValueKind == JsonValueKind.Object)];
    }

    /// <returns>Null where it could not be read; the machine as a whole goes on answering.</returns>
    public async Task<JsonElement?> TryReadAsync(string path, CancellationToken ct)
    {
        try
        {
            return await ReadAsync(path, ct);
        }
        catch (Exception e) when (OfOneResource(e) is { } why)
        {
            Missed($"'{path}' {why}");
            return null;
        }
    }

    /// <summary>What befalls one resource and says nothing of the others; null for what is about the whole machine, such as a refused sign-in.</summary>
    public static string? OfOneResource(Exception e) =>
        e switch
        {
            RedfishException odd => $"cannot be used: {odd.Message}",
            JsonException => "answered something that is not JSON.",
            HttpRequestException { StatusCode: { } status } when (int)status is not (401 or 403 or 429 or 503) =>
                $"answered {(int)status} {status}.",
            _ => null,
        };

    public string LinkOf(JsonElement resource, string name) =>
        resource.Find(name)?.Text("@odata.id")
        ?? throw new RedfishException($"'{resource.Text("@odata.id") ?? "the service root"}' has no '{name}'.");

    public string LinkOf(string name) => LinkOf(Root, name);

    public Task<JsonElement> ReadAsync(string path, CancellationToken ct) => _door.GetAsync(path, ct);

    private static void Few(int members)
    {
        if (members > MostMembers)
            throw new RedfishException($"a list has {members} members; at most {MostMembers} are read.");
    }

    private static bool IsLink(JsonElement member) =>
        member.ValueKind == JsonValueKind.Object
            ? member.EnumerateObject().Count() == 1
            : throw new RedfishException("a member of a list is no object.");
}
