using System.Collections.Concurrent;
using System.Text.Json.Nodes;
using System.Threading.Channels;
using Nailcrow.StandIn.Machine;

namespace Nailcrow.StandIn.Events;

/// <summary>Who hears of what happens at the machine: those it pushes to, and those who read its stream.</summary>
internal sealed class EventBoard(StandInMachine machine, TimeProvider time) : IDisposable
{
    private readonly HttpClient _http = new() { Timeout = TimeSpan.FromSeconds(5) };
    private readonly ConcurrentDictionary<string, JsonObject> _subscriptions = new();
    private readonly ConcurrentDictionary<Guid, Channel<JsonObject>> _streams = new();
    private int _number;

    public IEnumerable<string> Subscriptions => machine.Manner == Manner.Forgets ? [] : _subscriptions.Keys.Order();

    public JsonObject? Subscription(string id) => _subscriptions.GetValueOrDefault(id)?.DeepClone().AsObject();

    public string Subscribe(string destination, string? context)
    {
        var id = $"{Interlocked.Increment(ref _number)}";
        if (machine.Manner == Manner.Forgets)
            return id;
        _subscriptions[id] = new()
        {
            ["@odata.id"] = Path(id),
            ["Id"] = id,
            ["Destination"] = destination,
            ["Context"] = context,
            ["Protocol"] = "Redfish",
        };
        return id;
    }

    public bool Drop(string id) => _subscriptions.TryRemove(id, out _);

    public async Task ListenAsync(Func<JsonObject, Task> tell, CancellationToken ct)
    {
        var (id, mine) = (Guid.NewGuid(), Channel.CreateBounded<JsonObject>(1000));
        _streams[id] = mine;
        try
        {
            await foreach (var said in mine.Reader.ReadAllAsync(ct))
                await tell(said);
        }
        finally
        {
            _streams.TryRemove(id, out _);
        }
    }

    /// <summary>Says what happened to a drive, as an Event resource.</summary>
    public void Tell(int bay, string message, string severity)
    {
        var id = $"{machine.Serial}-{Interlocked.Increment(ref _number)}";
        var said = new JsonObject
        {
            ["@odata.type"] = "#Event.v1_11_0.Event",
            ["Id"] = id,
            ["Events"] = new JsonArray(
                new JsonObject
                {
                    ["EventId"] = id,
                    ["EventTimestamp"] = time.GetUtcNow().ToString("O"),
                    ["MessageSeverity"] = severity,
                    ["Message"] = message,
                    ["OriginOfCondition"] = new JsonObject
                    {
                        ["@odata.id"] = $"/redfish/v1/Systems/1/Storage/1/Drives/{StandInMachine.Names[bay - 1]}",
                    },
                }
            ),
        };
        foreach (var stream in _streams.Values)
            stream.Writer.TryWrite(said);
        foreach (var subscription in _subscriptions.Values)
            _ = PushAsync(subscription["Destination"]?.GetValue<string>(), said.ToJsonString());
    }

    public static string Path(string id) => $"/redfish/v1/EventService/Subscriptions/{id}";

    public void Dispose() => _http.Dispose();

    private async Task PushAsync(string? destination, string body)
    {
        try
        {
            using var content = new StringContent(body, System.Text.Encoding.UTF8, "application/json");
            using var answer = await _http.PostAsync(destination, content);
        }
        catch (Exception e)
            when (e is HttpRequestException or OperationCanceledException or InvalidOperationException or UriFormatException)
        {
            // A real machine tries some times and gives up as well.
        }
    }
}
