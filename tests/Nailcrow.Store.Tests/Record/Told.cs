using System.Text.Json;

namespace Nailcrow.Store.Tests.Record;

internal static class Told
{
    /// <summary>Where something that was told then is told otherwise now. What is told now and was not then is no difference.</summary>
    public static IEnumerable<string> Differences(JsonElement then, JsonElement now, string path) =>
        then.ValueKind switch
        {
            JsonValueKind.Object when now.ValueKind == JsonValueKind.Object => then.EnumerateObject()
                .SelectMany(p =>
                    now.TryGetProperty(p.Name, out var value)
                        ? Differences(p.Value, value, $"{path}.{p.Name}")
                        : [$"{path}.{p.Name} is not told any more"]
                ),
            JsonValueKind.Array when now.ValueKind == JsonValueKind.Array && then.GetArrayLength() == now.GetArrayLength() =>
                then.EnumerateArray()
                    .Zip(now.EnumerateArray())
                    .SelectMany((pair, nth) => Differences(pair.First, pair.Second, $"{path}[{nth}]")),
            JsonValueKind.Number when now.ValueKind == JsonValueKind.Number && then.GetDecimal() == now.GetDecimal() => [],
            JsonValueKind.Null when now.ValueKind == JsonValueKind.Null => [],
            _ => then.ToString() == now.ToString() && then.ValueKind == now.ValueKind ? [] : [$"{path} was {then} and is {now}"],
        };
}
