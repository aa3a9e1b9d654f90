using System.Text.Json;
using System.Text.Json.Serialization.Metadata;

namespace Nailcrow.Store.Appliances;

/// <summary>A row whose content is JSON, always read whole.</summary>
internal interface IKeptAsJson
{
    string Body { get; set; }
}

/// <summary>Reference data that is kept as JSON in a column.</summary>
internal static class StoredJson
{
    public static string Text<T>(T value, JsonTypeInfo<T> type) => JsonSerializer.Serialize(value, type);

    public static T Parse<T>(string body, JsonTypeInfo<T> type) =>
        JsonSerializer.Deserialize(body, type) ?? throw new InvalidDataException($"A stored {typeof(T).Name} is null.");
}
