using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Service.Host.Answers;

/// <summary>What the serialiser found wrong with a body, in words of the interface instead of our types' names.</summary>
internal static partial class UnreadableJson
{
    public static string Sentence(JsonException json) => $"The body cannot be read{Place(json)}: {What(json)}";

    /// <summary>An entry whose kind is not said at all; the serialiser has another exception for that.</summary>
    public static string? OfMissingKind(Exception exception) =>
        exception is NotSupportedException && exception.Message.Contains("type discriminator", StringComparison.Ordinal)
            ? $"The body does not say its kind; accepted in 'kind': {string.Join(", ", Kinds())}."
            : null;

    private static string Place(JsonException json) => json.Path is null or "$" ? "" : $" at {json.Path}";

    private static string What(JsonException json)
    {
        var message = json.Message;
        if (Missing().Match(message) is { Success: true } missing)
            return $"it lacks {missing.Groups[1].Value}.";
        if (Null().IsMatch(message))
            return "null is not accepted there.";
        if (Unmapped().Match(message) is { Success: true } unmapped)
            return $"there is no field '{unmapped.Groups[1].Value}'; accepted: {Fields(unmapped.Groups[2].Value)}.";
        if (message.Contains("unrecognized type discriminator", StringComparison.Ordinal))
            return $"no such kind of entry; accepted: {string.Join(", ", Kinds())}.";
        if (Unfit().Match(message) is { Success: true } unfit)
            return $"accepted there: {Accepted(unfit.Groups[1].Value.TrimEnd('.'), json.Path)}.";
        return Tail().Replace(message, "");
    }

    private static string Fields(string typeName) =>
        Named(typeName)?.GetConstructors().MaxBy(c => c.GetParameters().Length)?.GetParameters() is { Length: > 0 } fields
            ? string.Join(", ", fields.Select(p => JsonNamingPolicy.CamelCase.ConvertName(p.Name ?? "")))
            : "what /api/openapi.json says";

    private static Type? Named(string typeName) =>
        Type.GetType(typeName) ?? typeof(Words).Assembly.GetType(typeName) ?? typeof(Client.ContractJson).Assembly.GetType(typeName);

    private static IEnumerable<object?> Kinds() =>
        typeof(EntryBody)
            .GetCustomAttributes(typeof(JsonDerivedTypeAttribute), inherit: false)
            .Cast<JsonDerivedTypeAttribute>()
            .Select(a => a.TypeDiscriminator);

    /// <summary>What a field takes. The message names either the field's own type or the one it is a field of.</summary>
    private static string Accepted(string typeName, string? path)
    {
        var named = Named(typeName);
        var field = path?[(path.LastIndexOf('.') + 1)..] ?? "";
        var type =
            named?.GetProperties().FirstOrDefault(p => JsonNamingPolicy.CamelCase.ConvertName(p.Name) == field)?.PropertyType ?? named;
        return Kind(type is null ? null : Nullable.GetUnderlyingType(type) ?? type);
    }

    private static string Kind(Type? type) =>
        type is { IsEnum: true } ? string.Join(", ", Enum.GetNames(type).Select(JsonNamingPolicy.KebabCaseLower.ConvertName))
        : type == typeof(string) ? "text"
        : type == typeof(bool) ? "true or false"
        : type == typeof(Guid) ? "a UUID"
        : type == typeof(DateTimeOffset) ? "a time such as 2026-03-01T08:00:00Z"
        : type == typeof(DateOnly) ? "a date such as 2026-03-01"
        : type is { IsPrimitive: true } || type == typeof(decimal) ? "a number"
        : "what /api/openapi.json says of this field";

    [GeneratedRegex(@"missing required properties including: (.+?)\.(?: Path:|$)")]
    private static partial Regex Missing();

    [GeneratedRegex(@"doesn't allow (?:null values|setting null values)")]
    private static partial Regex Null();

    [GeneratedRegex(@"could not be converted to (?:System\.Nullable`1\[)?([\w.]+)")]
    private static partial Regex Unfit();

    [GeneratedRegex(@"The JSON property '(.+?)' could not be mapped to any \.NET member contained in type '(.+?)'")]
    private static partial Regex Unmapped();

    [GeneratedRegex(@" Path: .*$", RegexOptions.Singleline)]
    private static partial Regex Tail();
}
