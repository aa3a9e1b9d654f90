using System.Collections.Frozen;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Core.Tickets.Journal.Reading;

/// <summary>
/// The words that a release reads in entries: kinds, their fields, and what may stand where there is a list to choose from. Two releases
/// that work on one record tell each other theirs, so that the newer one decides nothing in words that the older one cannot read.
/// </summary>
/// <remarks>Written as "part-reserved", "part-reserved.model", "part-reserved.from.kind=depot"; what goes round in itself is named once.</remarks>
public static class JournalWords
{
    private static readonly Lazy<FrozenSet<string>> Read = new(() =>
    {
        var words = new Walk();
        words.Go(Body, "", null);
        return words.Found.ToFrozenSet();
    });

    private static JsonTypeInfo Body => JournalJson.Default.EntryBody;

    /// <summary>All that this release reads.</summary>
    public static IReadOnlySet<string> All => Read.Value;

    /// <summary>Those that one entry is written in.</summary>
    public static IReadOnlySet<string> Of(EntryBody body)
    {
        var words = new Walk();
        words.Go(Body, "", JsonSerializer.SerializeToElement(body, JournalJson.Default.EntryBody));
        return words.Found;
    }

    /// <summary>Through types alone, or through a value along its types.</summary>
    private sealed class Walk
    {
        private readonly Dictionary<Type, string> _inside = [];

        public HashSet<string> Found { get; } = [];

        /// <param name="value">Null for whatever may stand there.</param>
        public void Go(JsonTypeInfo type, string at, JsonElement? value)
        {
            if (value is { ValueKind: JsonValueKind.Null or JsonValueKind.Undefined })
                return;
            if (Nullable.GetUnderlyingType(type.Type) is { } plain)
                Go(Of(type, plain), at, value);
            else if (type.PolymorphismOptions is { } kinds)
                Kinds(type, kinds, at, value);
            else if (type.Kind == JsonTypeInfoKind.Object)
                Fields(type, at, value);
            else if (type is { Kind: JsonTypeInfoKind.Enumerable or JsonTypeInfoKind.Dictionary, ElementType: { } element })
                Items(type, Of(type, element), at, value);
            else if (type.Type is { IsEnum: true } words)
                Found.UnionWith(value is { } said ? [$"{at}={said}"] : Said(words, type).Select(word => $"{at}={word}"));
        }

        private void Kinds(JsonTypeInfo type, JsonPolymorphismOptions kinds, string at, JsonElement? value)
        {
            var said = value is { } body ? body.GetProperty(kinds.TypeDiscriminatorPropertyName).GetString() : null;
            foreach (var kind in kinds.DerivedTypes)
            {
                if (kind.TypeDiscriminator is not string word || (value is not null && word != said))
                    continue;
                var here = at.Length == 0 ? word : $"{at}:{word}";
                Found.Add(here);
                Fields(Of(type, kind.DerivedType), here, value);
            }
        }

        private void Fields(JsonTypeInfo type, string at, JsonElement? value)
        {
            if (_inside.TryGetValue(type.Type, out var outer))
            {
                if (value is null)
                    return; // it has been gone through from where it stands for the first time
                at = outer;
            }
            else
                _inside.Add(type.Type, at);
            foreach (var field in type.Properties)
            {
                if (value is { } all && (all.ValueKind != JsonValueKind.Object || !all.TryGetProperty(field.Name, out _)))
                    continue;
                Found.Add($"{at}.{field.Name}");
                Go(Of(type, field.PropertyType), $"{at}.{field.Name}", value?.GetProperty(field.Name));
            }
            if (outer is null)
                _inside.Remove(type.Type);
        }

        private void Items(JsonTypeInfo type, JsonTypeInfo element, string at, JsonElement? value)
        {
            if (value is not { } all)
                Go(element, at, null);
            else if (type.Kind == JsonTypeInfoKind.Dictionary)
                foreach (var item in all.EnumerateObject())
                    Go(element, at, item.Value);
            else
                foreach (var item in all.EnumerateArray())
                    Go(element, at, item);
        }

        private static JsonTypeInfo Of(JsonTypeInfo among, Type type) => among.Options.GetTypeInfo(type);

        private static IEnumerable<string> Said(Type words, JsonTypeInfo type) =>
            Enum.GetValuesAsUnderlyingType(words)
                .Cast<object>()
                .Select(number => JsonSerializer.SerializeToElement(Enum.ToObject(words, number), type).ToString());
    }
}
