using System.ComponentModel;
using System.Reflection;
using Microsoft.Extensions.Options;
using Nailcrow.Core.Terms;

namespace Nailcrow.Service.Host;

/// <summary>
/// Reads settings, and says of which there is none by that name and which cannot be read: one that is only passed over is off without a word,
/// and of a second factor or a network somebody would have gone on believing that it is on.
/// </summary>
internal static class SettingsRead
{
    /// <param name="configuration">Where they were given: command line, environment, a file.</param>
    /// <param name="section">What they are under, such as "Nailcrow:Intake".</param>
    /// <param name="others">What else is under it and read by somebody else.</param>
    /// <exception cref="OptionsValidationException">All that is wrong, each as a sentence.</exception>
    public static T Of<T>(IConfiguration configuration, string section, params string[] others)
        where T : class, new()
    {
        var given = configuration.GetSection(section);
        // A variable of the environment that is only called like the service is none of its settings.
        if (section.Contains(':') && !string.IsNullOrEmpty(given.Value))
            throw new OptionsValidationException(section, typeof(T), [HowParts(section, typeof(T))]);
        var problems = given
            .GetChildren()
            .Where(child => !others.Contains(child.Key, StringComparer.OrdinalIgnoreCase))
            .SelectMany(child => OfPart(child, typeof(T), others));
        return problems.ToList() is { Count: > 0 } all
            ? throw new OptionsValidationException(section, typeof(T), all)
            : given.Get<T>() ?? new();
    }

    /// <inheritdoc cref="Of{T}(IConfiguration, string, string[])"/>
    /// <param name="problems">What else may be wrong with them.</param>
    public static T Of<T>(IConfiguration configuration, string section, Func<T, IEnumerable<string>> problems)
        where T : class, new()
    {
        var settings = Of<T>(configuration, section);
        return problems(settings).ToList() is { Count: > 0 } all ? throw new OptionsValidationException(section, typeof(T), all) : settings;
    }

    private static IEnumerable<string> OfPart(IConfigurationSection said, Type whole, string[] others)
    {
        var parts = whole.GetProperties(BindingFlags.Public | BindingFlags.Instance).Where(IsSetting).ToList();
        var part = parts.Find(p => p.Name.Equals(said.Key, StringComparison.OrdinalIgnoreCase));
        if (part is not null)
            return Problems(said, part.PropertyType);
        return
        [
            $"{said.Path} is no setting.{Nearest.Hint(said.Key, [.. parts.Select(p => p.Name), .. others])} docs/settings.md lists them.",
        ];
    }

    // What is only told of the others has no setter.
    private static bool IsSetting(PropertyInfo property) => property.SetMethod is not null;

    private static IEnumerable<string> Problems(IConfigurationSection said, Type type)
    {
        var one = Nullable.GetUnderlyingType(type) ?? type;
        var parts = said.GetChildren().ToList();
        if (IsOneValue(one))
            return parts.Count > 0 ? [$"{said.Path} is one value and has no parts; {parts[0].Path} is no setting."] : Unreadable(said, one);
        if (!string.IsNullOrEmpty(said.Value))
            return [HowParts(said.Path, one)];
        return one.IsGenericType
            ? parts.SelectMany(part => Problems(part, one.GetGenericArguments()[^1]))
            : parts.SelectMany(part => OfPart(part, one, [])).Concat(parts.Count == 0 ? [] : Missing(said, one));
    }

    // What a record is made of has no default: a certificate is nothing without its key.
    private static IEnumerable<string> Missing(IConfigurationSection said, Type type) =>
        type.GetConstructors()
            .Where(_ => type.GetConstructor([]) is null)
            .SelectMany(made => made.GetParameters())
            .Where(needed => !said.GetSection(needed.Name!).Exists())
            .Select(needed => $"{said.Path}:{needed.Name} is not given, and what else stands in {said.Path} is nothing without it.");

    private static bool IsOneValue(Type type) => type == typeof(string) || type.IsValueType;

    private static IEnumerable<string> Unreadable(IConfigurationSection said, Type type) =>
        type == typeof(string) || IsReadable(said.Value ?? "", type) ? [] : [$"{said.Path} is '{said.Value}'; accepted: {Accepted(type)}."];

    private static bool IsReadable(string value, Type type)
    {
        try
        {
            return TypeDescriptor.GetConverter(type).ConvertFromInvariantString(value) is not double number || double.IsFinite(number);
        }
        catch (Exception e) when (e is ArgumentException or FormatException or OverflowException or NotSupportedException)
        {
            return false;
        }
    }

    private static string Accepted(Type type) =>
        type == typeof(bool) ? "true or false"
        : type == typeof(int) ? "a whole number"
        : type == typeof(double) ? "a number, such as 2.5"
        : type == typeof(TimeSpan) ? "hours, minutes and seconds, such as 00:00:30"
        : $"a {type.Name}";

    // Without what was said: somebody may have written a password where its name belongs.
    private static string HowParts(string path, Type type) =>
        !type.IsGenericType
            ? $"{path} is no value and has parts: {string.Join(", ", type.GetProperties().Where(IsSetting).Select(p => $"{path}:{p.Name}"))}."
        : type.GetGenericArguments().Length == 2 ? $"{path} has a name for each: {path}:NAME=..."
        : $"{path} is a list, and each has its number: {path}:0=...";
}
