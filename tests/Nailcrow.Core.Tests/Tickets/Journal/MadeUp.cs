using System.Collections;
using System.Reflection;
using System.Text.Json.Serialization;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Core.Tests.Tickets.Journal;

/// <summary>Values of any type that an entry holds, made up from a seed. It knows the types by reflection and nothing else of them.</summary>
internal sealed class MadeUp(int seed, bool withOptional = true)
{
    private static readonly string[] Texts =
    [
        "",
        "C8NEWW2286",
        "bay 3",
        "Größe",
        "\"quoted\"\\",
        "line\nline\t\u0001",
        "\u2028\U0001F4BE",
        "0",
        "done",
    ];

    private readonly Random _random = new(seed);

    public static IReadOnlyList<Type> Kinds =>
        [.. typeof(EntryBody).GetCustomAttributes<JsonDerivedTypeAttribute>().Select(a => a.DerivedType)];

    /// <summary>What is kept as JSON beside the journal: models, sites, machines, rules, what machines said.</summary>
    private static IEnumerable<Type> AlsoKept =>
        typeof(JournalJson)
            .GetCustomAttributesData()
            .Where(a => a.AttributeType == typeof(JsonSerializableAttribute))
            .Select(a => (Type)a.ConstructorArguments[0].Value!)
            .Select(Plain)
            .Where(t => IsOurs(t) && !t.IsAbstract && t != typeof(Entry)); // the attribute's argument is a type

    /// <summary>Every record type that some entry, or something kept beside the journal, holds somewhere.</summary>
    public static IReadOnlyCollection<Type> Reachable()
    {
        var found = new HashSet<Type>();
        var open = new Queue<Type>(Kinds.Concat(AlsoKept));
        while (open.TryDequeue(out var type))
            if (found.Add(type))
                foreach (var part in Made(type).GetParameters().Select(p => Plain(p.ParameterType)).Where(IsOurs))
                    open.Enqueue(part);
        return found;
    }

    public static ConstructorInfo Made(Type type) =>
        // An entry inside an entry may be of any kind; one of them stands for all, each of which is made for itself.
        (type == typeof(EntryBody) ? typeof(Core.Returns.ReturnArrived) : type)
            .GetConstructors()
            .MaxBy(c => c.GetParameters().Length)
        ?? throw new InvalidOperationException($"{type.Name} cannot be made.");

    /// <summary>Whether a parameter may be left out of the text: it says so by being nullable.</summary>
    public static bool IsOptional(ParameterInfo parameter) =>
        new NullabilityInfoContext().Create(parameter).WriteState == NullabilityState.Nullable;

    public EntryBody Body(Type kind) => (EntryBody)Object(kind);

    private object Object(Type type) =>
        Made(type)
            .Invoke([
                .. Made(type)
                    .GetParameters()
                    .Select(p => IsOptional(p) && (!withOptional || _random.Next(2) == 0) ? null : Value(p.ParameterType)),
            ]);

    private object Value(Type type)
    {
        type = Nullable.GetUnderlyingType(type) ?? type;
        return type == typeof(string) ? Texts[_random.Next(Texts.Length)]
            : type == typeof(bool) ? _random.Next(2) == 0
            : type == typeof(int) ? _random.Next(-5, 1_000_000)
            : type == typeof(long) ? _random.NextInt64(0, 1L << 53)
            : type == typeof(decimal) ? _random.Next(0, 10_001) / 100m
            : type == typeof(double) ? _random.Next(0, 10_001) / 8.0
            : type == typeof(Guid) ? Guid.CreateVersion7()
            : type == typeof(DateTimeOffset) ? Some.Noon.AddMilliseconds(_random.Next())
            : type == typeof(DateOnly) ? new DateOnly(2026, 1, 1).AddDays(_random.Next(4000))
            : type.IsEnum ? Enum.GetValues(type).GetValue(_random.Next(Enum.GetValues(type).Length))! // every enum here has a value
            : Element(type) is { } element ? List(element)
            : Object(type);
    }

    private object List(Type element)
    {
        var list = Array.CreateInstance(element, _random.Next(0, 4));
        for (var i = 0; i < list.Length; i++)
            list.SetValue(Value(element), i);
        return list;
    }

    private static Type? Element(Type type) =>
        type == typeof(string) || !typeof(IEnumerable).IsAssignableFrom(type) ? null
        : type.IsArray ? type.GetElementType()
        : type.GetGenericArguments().FirstOrDefault();

    private static Type Plain(Type type) => Element(Nullable.GetUnderlyingType(type) ?? type) ?? Nullable.GetUnderlyingType(type) ?? type;

    private static bool IsOurs(Type type) =>
        type is { IsEnum: false, Namespace: { } name } && name.StartsWith("Nailcrow", StringComparison.Ordinal);
}
