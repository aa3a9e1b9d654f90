using System.Text.Json;

namespace Nailcrow.Appliances.Redfish;

/// <summary>Reading a resource by the schema's names, where any may be missing or null.</summary>
internal static class RedfishJson
{
    public static JsonElement? Find(this JsonElement resource, string name) =>
        resource.ValueKind == JsonValueKind.Object && resource.TryGetProperty(name, out var value) && value.ValueKind != JsonValueKind.Null
            ? value
            : null;

    public static string? Text(this JsonElement resource, string name) =>
        resource.Find(name) is { ValueKind: JsonValueKind.String } value ? value.GetString() : null;

    public static string Required(this JsonElement resource, string name) =>
        resource.Text(name) ?? throw new RedfishException($"'{resource.Text("@odata.id") ?? "a resource"}' has no '{name}'.");

    public static bool? Flag(this JsonElement resource, string name) =>
        resource.Find(name)?.ValueKind switch
        {
            JsonValueKind.True => true,
            JsonValueKind.False => false,
            _ => null,
        };

    public static long? Whole(this JsonElement resource, string name) =>
        resource.Find(name) is { ValueKind: JsonValueKind.Number } value && value.TryGetInt64(out var whole) ? whole : null;

    public static decimal? Number(this JsonElement resource, string name) =>
        resource.Find(name) is { ValueKind: JsonValueKind.Number } value && value.TryGetDecimal(out var number) ? number : null;

    public static IReadOnlyList<JsonElement> Items(this JsonElement resource, string name) =>
        resource.Find(name) is { ValueKind: JsonValueKind.Array } list ? [.. list.EnumerateArray()] : [];

    public static IReadOnlyList<string> Links(this JsonElement resource, string name) =>
        [.. resource.Items(name).Where(i => i.ValueKind == JsonValueKind.Object).Select(i => i.Required("@odata.id"))];
}
