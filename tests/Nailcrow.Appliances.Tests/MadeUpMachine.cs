using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Nailcrow.Appliances.Reaching;
using Nailcrow.Appliances.Redfish;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Tests;

/// <summary>A machine whose tree a test writes down, resource by resource.</summary>
internal sealed class MadeUpMachine : HttpMessageHandler
{
    private const string Root = "/redfish/v1";

    private readonly Dictionary<string, JsonObject> _tree = [];
    private readonly Dictionary<string, HttpStatusCode> _broken = [];
    private readonly Dictionary<string, string> _said = [];

    public MadeUpMachine()
    {
        Put(Root, new() { ["Chassis"] = Link($"{Root}/Chassis"), ["Systems"] = Link($"{Root}/Systems") });
        List($"{Root}/Chassis");
        List($"{Root}/Systems");
    }

    public Appliance Appliance { get; init; } =
        new("FSC-0901", "CHS-1", "brackmere-b12", "Corrin", "Hall", "http://127.0.0.1/", Expansions: [new("E1", "brackmere-b12", "CHS-2")]);

    public async Task<Parsed<MachineLook>> LookAsync()
    {
        using var http = new HttpClient(this, disposeHandler: false);
        return await Link(http).LookAsync(Appliance, TestContext.Current.CancellationToken);
    }

    public async Task<Snapshot> SeenAsync() => (await LookAsync()).ShouldBeOfType<Parsed<MachineLook>.Ok>().Value.Snapshot;

    public async Task<IReadOnlyList<TrialStep>> TriedAsync()
    {
        using var http = new HttpClient(this, disposeHandler: false);
        return await Link(http).TryAsync(Appliance, TestContext.Current.CancellationToken);
    }

    private static RedfishLink Link(HttpClient http) =>
        new(
            http,
            TimeProvider.System,
            new RedfishAsking(
                new NoMachineKeys(),
                new MachineSessions(new MachineConnections(new AllowedAddresses([]))),
                new LinkSettings()
            )
        );

    public string Chassis(string id, string? serial, string? within = null)
    {
        var path = Add($"{Root}/Chassis", id, new() { ["SerialNumber"] = serial });
        if (within is not null)
            _tree[path]["Links"] = new JsonObject { ["ContainedBy"] = Link(within) };
        return path;
    }

    public string System(string id)
    {
        var path = Add($"{Root}/Systems", id, new() { ["Storage"] = Link($"{Root}/Systems/{id}/Storage") });
        List($"{path}/Storage");
        return path;
    }

    public string Storage(string system, string id)
    {
        var path = Add($"{system}/Storage", id, []);
        _tree[path]["Drives"] = new JsonArray();
        _tree[path]["Volumes"] = Link($"{path}/Volumes");
        List($"{path}/Volumes");
        return path;
    }

    /// <param name="more">Properties beside those every drive has.</param>
    public string Drive(string storage, string id, string bay, string? serial, string? chassis = null, JsonObject? more = null)
    {
        var path = $"{storage}/Drives/{id}";
        var place = new JsonObject { ["ServiceLabel"] = $"Bay {bay}" };
        if (more?["Reference"]?.GetValue<string>() is { } side)
            place["Reference"] = side;
        Put(
            path,
            new()
            {
                ["Id"] = id,
                ["SerialNumber"] = serial,
                ["CapacityBytes"] = 8_000_000_000_000,
                ["PhysicalLocation"] = new JsonObject { ["PartLocation"] = place },
                ["Status"] = new JsonObject { ["State"] = serial is null ? "Absent" : "Enabled", ["Health"] = "OK" },
                ["Links"] = chassis is null ? new JsonObject() : new JsonObject { ["Chassis"] = Link(chassis) },
            }
        );
        ((JsonArray)_tree[storage]["Drives"]!).Add(Link(path));
        return path;
    }

    public string Volume(string storage, string id, string name, string level, params string[] drives) =>
        Add(
            $"{storage}/Volumes",
            id,
            new()
            {
                ["Name"] = name,
                ["RAIDType"] = level,
                ["Status"] = new JsonObject { ["State"] = "Enabled", ["Health"] = "OK" },
                ["Links"] = new JsonObject { ["Drives"] = new JsonArray([.. drives.Select(Link)]) },
            }
        );

    public MadeUpMachine Breaks(string path, HttpStatusCode status = HttpStatusCode.InternalServerError)
    {
        _broken[path] = status;
        return this;
    }

    /// <summary>It answers this there, whatever it is.</summary>
    public MadeUpMachine Says(string path, string text)
    {
        _said[path] = text;
        return this;
    }

    public JsonObject At(string path) => _tree[path];

    public void Put(string path, JsonObject resource)
    {
        resource["@odata.id"] = path;
        _tree[path] = resource;
    }

    public static JsonObject Link(string path) => new() { ["@odata.id"] = path };

    protected override Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancellationToken)
    {
        var path = request.RequestUri!.AbsolutePath.TrimEnd('/');
        if (_broken.TryGetValue(path + request.RequestUri.Query, out var status))
            return Task.FromResult(new HttpResponseMessage(status));
        if (_said.TryGetValue(path, out var said))
            return Task.FromResult(
                new HttpResponseMessage(HttpStatusCode.OK) { Content = new ByteArrayContent(Encoding.Latin1.GetBytes(said)) }
            );
        return Task.FromResult(
            _tree.TryGetValue(path + request.RequestUri.Query, out var found)
                ? new HttpResponseMessage(HttpStatusCode.OK) { Content = new StringContent(found.ToJsonString()) }
                : new HttpResponseMessage(HttpStatusCode.NotFound)
        );
    }

    private void List(string path) => Put(path, new() { ["Members"] = new JsonArray() });

    private string Add(string collection, string id, JsonObject resource)
    {
        var path = $"{collection}/{id}";
        resource["Id"] = id;
        Put(path, resource);
        ((JsonArray)_tree[collection]["Members"]!).Add(Link(path));
        return path;
    }
}
