using System.Text.RegularExpressions;
using Nailcrow.Appliances;
using Nailcrow.Service.Host;
using Nailcrow.Service.Intake;
using Nailcrow.Service.Returns.Outside;
using Shouldly;

namespace Nailcrow.Architecture.Tests;

public partial class SettingsTableTests
{
    [Fact]
    public void Each_setting_stands_in_the_table_by_the_name_that_is_read_and_nothing_else_does()
    {
        var read = new[]
        {
            Of(typeof(ServiceSettings), "Nailcrow"),
            Of(typeof(LinkSettings), "Nailcrow:Link"),
            Of(typeof(IntakeSettings), "Nailcrow:Intake"),
            Of(typeof(OutsideSettings), "Nailcrow:Outside"),
        }
            .SelectMany(name => name)
            .ToList();
        var told = Rows()
            .Matches(File.ReadAllText(Path.Combine(Repository.Root, "docs", "settings.md")))
            .Select(row => row.Groups[1].Value);
        told.Order(StringComparer.Ordinal).ShouldBe(read.Order(StringComparer.Ordinal));
    }

    // A list's first is told by its number, what has a name for each by a word in capitals.
    private static IEnumerable<string> Of(Type type, string path) =>
        type.GetProperties().Where(p => p.SetMethod is not null).SelectMany(p => OfOne(p.PropertyType, $"{path}:{p.Name}"));

    private static IEnumerable<string> OfOne(Type type, string path) =>
        type == typeof(string) || type.IsValueType ? [path]
        : !type.IsGenericType ? Of(type, path)
        : type.GetGenericArguments() is [var each] ? OfOne(each, $"{path}:0")
        : [$"{path}:GROUP"];

    [GeneratedRegex(@"^\| `(Nailcrow:[^`]+)`", RegexOptions.Multiline)]
    private static partial Regex Rows();
}
