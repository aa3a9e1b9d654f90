using System.Text.Json;
using System.Text.Json.Serialization;

namespace Nailcrow.Core.Terms;

/// <summary>Writes an enum the way people read it: <c>LikelyMisreading</c> is <c>likely-misreading</c>.</summary>
public sealed class KebabEnum<T>() : JsonStringEnumConverter<T>(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false)
    where T : struct, Enum;

/// <summary>The same words outside JSON: in sentences, in YAML and on the command line.</summary>
public static class Words
{
    /// <summary>As a sentence begins: with a capital.</summary>
    public static string Capital(string words) => words.Length == 0 ? words : $"{char.ToUpperInvariant(words[0])}{words[1..]}";

    public static string Of<T>(T value)
        where T : struct, Enum => JsonNamingPolicy.KebabCaseLower.ConvertName(value.ToString());

    /// <summary>All words of a family in declared order, for "accepted: …" lists.</summary>
    public static string List<T>()
        where T : struct, Enum => string.Join(", ", Enum.GetValues<T>().Select(Of));

    public static Parsed<T> Parse<T>(string? text, string what)
        where T : struct, Enum
    {
        foreach (var value in Enum.GetValues<T>())
            if (string.Equals(Of(value), text?.Trim(), StringComparison.OrdinalIgnoreCase))
                return new Parsed<T>.Ok(value);
        return new Parsed<T>.Refused(
            $"'{text}' is not {("aeiou".Contains(what[0], StringComparison.Ordinal) ? "an" : "a")} {what}; accepted: {List<T>()}."
        );
    }
}
