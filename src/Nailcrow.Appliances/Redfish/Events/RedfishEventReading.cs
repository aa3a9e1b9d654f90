using System.Globalization;
using System.Text.Json;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Redfish.Events;

/// <summary>Reads an Event resource of the open Redfish schema (DSP0266, section "Eventing").</summary>
public static class RedfishEventReading
{
    // One message carries some events; more is no machine.
    private const int MostInOne = 200;
    private const int LongestText = 2_000;

    /// <exception cref="JsonException">It is not JSON.</exception>
    public static IReadOnlyList<MachineEvent> Of(ReadOnlySpan<byte> body)
    {
        using var json = WholeJson.Parse(body.ToArray(), maxDepth: 16);
        return
        [
            .. json
                .RootElement.Items("Events")
                .Take(MostInOne)
                .Where(e => e.ValueKind == JsonValueKind.Object)
                .Select((e, i) => One(json.RootElement, e, i)),
        ];
    }

    private static MachineEvent One(JsonElement whole, JsonElement one, int nth)
    {
        var origin = one.Find("OriginOfCondition")?.Text("@odata.id") ?? one.Text("OriginOfCondition") ?? "";
        var id = one.Text("EventId") ?? $"{whole.Text("Id")}.{nth}";
        var text = one.Text("Message") ?? one.Text("MessageId") ?? "An event without a message.";
        var at = DateTimeOffset.TryParse(
            one.Text("EventTimestamp"),
            CultureInfo.InvariantCulture,
            DateTimeStyles.AssumeUniversal,
            out var time
        )
            ? time
            : (DateTimeOffset?)null;
        return new(
            id,
            at,
            new string([.. Shortened.To(text, LongestText, null).Select(c => char.IsControl(c) ? '·' : c)]),
            Last(origin, "/Drives/"),
            Last(origin, "/Volumes/"),
            (one.Text("MessageSeverity") ?? one.Text("Severity")) is not "OK"
        );
    }

    private static string? Last(string path, string below) =>
        path.LastIndexOf(below, StringComparison.Ordinal) is >= 0 and var at && path[(at + below.Length)..] is { Length: > 0 } rest
            ? rest.Split('/')[0]
            : null;
}
