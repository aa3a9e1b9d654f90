using System.Collections;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;

namespace Nailcrow.Service.Host.Answers;

/// <summary>
/// A list that somebody sends has no null in it. The serialiser looks at fields only; a hole in a list would be met by whoever goes
/// through it, or be kept.
/// </summary>
internal static class NoHoles
{
    public static void In(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
            return;
        var lists = type.Properties.Where(p => p.Get is not null && IsList(p.PropertyType)).ToList();
        if (lists.Count == 0)
            return;
        var before = type.OnDeserialized;
        type.OnDeserialized = read =>
        {
            before?.Invoke(read);
            foreach (var list in lists)
                if (list.Get!(read) is IEnumerable items && items.Cast<object?>().Contains(null)) // lists has those with a getter
                    throw new JsonException($"'{list.Name}' has a null in it; leave it out.");
        };
    }

    private static bool IsList(Type type) =>
        type != typeof(string)
        && type.GetInterfaces().Append(type).FirstOrDefault(i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(IEnumerable<>))
            is { } list
        && !list.GetGenericArguments()[0].GetTypeInfo().IsValueType;
}
