using System.Globalization;
using System.Text.Json;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Terms;

namespace Nailcrow.Service.Intake.Events;

/// <summary>
/// A fault as a CloudEvents 1.0 event of the type "org.nailcrow.drive-fault.v1", structured (application/cloudevents+json)
/// or binary (ce- headers). Its data: asset, text, and where known bay, serial, array, kind, count.
/// </summary>
internal sealed record CloudEvent(string Id, string Source, DateTimeOffset? Time, JsonElement Data)
{
    public const string Type = "org.nailcrow.drive-fault.v1";

    private const int LongestText = 2_000;

    public static Parsed<CloudEvent> Read(string? contentType, IHeaderDictionary headers, byte[] body)
    {
        try
        {
            using var json = WholeJson.Parse(body, maxDepth: 16);
            var structured = contentType?.StartsWith("application/cloudevents+json", StringComparison.OrdinalIgnoreCase) == true;
            string? Of(string name) => structured ? Text(json.RootElement, name) : headers[$"ce-{name}"].FirstOrDefault();
            if (Of("specversion") != "1.0")
                return No(
                    $"specversion is '{Of("specversion") ?? "missing"}'; 1.0 is understood, as application/cloudevents+json or with ce- headers."
                );
            if (Of("type") != Type)
                return No($"type is '{Of("type") ?? "missing"}'; {Type} is understood.");
            if (Of("id") is not { Length: > 0 and <= 200 } id || Of("source") is not { Length: > 0 and <= 200 } source)
                return No("An event has an id and a source, each of 1 to 200 characters.");
            DateTimeOffset? at = null;
            if (Of("time") is { } time)
            {
                if (!DateTimeOffset.TryParse(time, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var read))
                    return No($"time is '{time}'; write RFC 3339, as 2026-03-01T08:00:00Z.");
                at = read;
            }
            var data = structured
                ? json.RootElement.TryGetProperty("data", out var inner)
                    ? inner.Clone()
                    : default
                : json.RootElement.Clone();
            return data.ValueKind == JsonValueKind.Object
                ? new Parsed<CloudEvent>.Ok(new(id, source, at, data))
                : No("data is missing; it is an object with asset and text.");
        }
        catch (JsonException e)
        {
            return No($"The body is not JSON, at line {e.LineNumber + 1}, byte {e.BytePositionInLine + 1}.");
        }
    }

    /// <summary>The alert in it; refused where it says nothing usable.</summary>
    public Parsed<Alert> ToAlert(Guid id, DateTimeOffset now)
    {
        if (Text(Data, "asset") is not { Length: > 0 and <= 100 } asset)
            return new Parsed<Alert>.Refused("data.asset is missing; it is the appliance's asset number.");
        if (Text(Data, "text") is not { Length: > 0 } text)
            return new Parsed<Alert>.Refused("data.text is missing; it says what was seen.");
        var kind = EvidenceKind.Alert;
        if (Text(Data, "kind") is { } word)
            switch (Words.Parse<EvidenceKind>(word, "kind of evidence"))
            {
                case Parsed<EvidenceKind>.Ok(var known):
                    kind = known;
                    break;
                case Parsed<EvidenceKind>.Refused(var reason):
                    return new Parsed<Alert>.Refused($"data.kind: {reason}");
            }
        int? count =
            Data.TryGetProperty("count", out var number) && number.ValueKind == JsonValueKind.Number && number.TryGetInt32(out var times)
                ? times
                : null;
        var said = new string([.. Shortened.To(text, LongestText, null).Select(c => char.IsControl(c) ? '·' : c)]);
        var at = Time is { } time && (time - now).Duration() < TimeSpan.FromDays(30) ? time : now;
        return new Parsed<Alert>.Ok(
            new(
                id,
                "cloudevents",
                Source,
                at,
                kind,
                said,
                asset.Trim().ToUpperInvariant(),
                Text(Data, "bay"),
                Text(Data, "name"),
                Text(Data, "serial"),
                Text(Data, "array"),
                count
            )
        );
    }

    private static string? Text(JsonElement json, string name) =>
        json.ValueKind == JsonValueKind.Object && json.TryGetProperty(name, out var value) && value.ValueKind == JsonValueKind.String
            ? value.GetString()
            : null;

    private static Parsed<CloudEvent> No(string reason) => new Parsed<CloudEvent>.Refused(reason);
}
