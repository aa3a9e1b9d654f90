using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Text;
using System.Text.Json;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Redfish.Events;

/// <summary>Event subscriptions and the event stream of the open Redfish schema (DSP0266).</summary>
internal sealed class RedfishEvents(HttpClient http, IHttpClientFactory clients, LinkSettings settings, RedfishAsking asking)
    : IMachineEvents
{
    /// <summary>The named client that streams are read with: it has no deadline, since a quiet machine is a well one.</summary>
    public const string StreamClient = "machine-stream";

    // Marks our subscriptions on the machine, so that those of an earlier life are found again.
    private const string Context = "nailcrow";

    public Task<Parsed<string>> SubscribeAsync(Appliance appliance, Uri destination, CancellationToken ct) =>
        AskAsync(
            appliance,
            async (machine, deadline) =>
            {
                var subscriptions = machine.LinkOf(await machine.ReadAsync(machine.LinkOf("EventService"), deadline), "Subscriptions");
                var there = await machine.MembersAsync(subscriptions, deadline);
                if (
                    there.FirstOrDefault(s => s.Text("Context") == Context && s.Text("Destination") == destination.ToString()) is
                    { ValueKind: JsonValueKind.Object } ours
                )
                    return ours.Required("@odata.id");
                return await machine.Door.PostAsync(
                    subscriptions,
                    new Dictionary<string, string>
                    {
                        ["Destination"] = destination.ToString(),
                        ["Protocol"] = "Redfish",
                        ["SubscriptionType"] = "RedfishEvent",
                        ["Context"] = Context,
                    },
                    deadline
                );
            },
            ct
        );

    public Task<Parsed<IAsyncEnumerable<MachineEvent>>> StreamAsync(Appliance appliance, CancellationToken ct) =>
        AskAsync(
            appliance,
            async (machine, deadline) =>
            {
                var service = await machine.ReadAsync(machine.LinkOf("EventService"), deadline);
                var path = service.Text("ServerSentEventUri") ?? throw new RedfishException("it offers no event stream.");
                return Streamed(machine.Door, path, ct);
            },
            ct
        );

    private async IAsyncEnumerable<MachineEvent> Streamed(RedfishDoor door, string path, [EnumeratorCancellation] CancellationToken ct)
    {
        using var client = clients.CreateClient(StreamClient);
        await using var stream = await door.By(client).StreamAsync(path, ct);
        await foreach (var item in SseParser.Create(stream).EnumerateAsync(ct))
        {
            if (item.Data.Length > settings.MostBytes)
                continue;
            foreach (var one in Read(item.Data))
                yield return one;
        }
    }

    private static IReadOnlyList<MachineEvent> Read(string data)
    {
        try
        {
            return RedfishEventReading.Of(Encoding.UTF8.GetBytes(data));
        }
        catch (JsonException)
        {
            return []; // a line that keeps the stream open, or nonsense: neither is an event
        }
    }

    private Task<Parsed<T>> AskAsync<T>(Appliance appliance, Func<RedfishMachine, CancellationToken, Task<T>> ask, CancellationToken ct) =>
        asking.AskAsync(http, appliance, "", ask, ct);
}
