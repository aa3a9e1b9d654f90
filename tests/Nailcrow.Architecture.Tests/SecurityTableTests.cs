using System.Globalization;
using System.Text.RegularExpressions;

namespace Nailcrow.Architecture.Tests;

/// <summary>docs/security.md says of each requirement of OWASP ASVS 4.0.3, levels 1 and 2, what holds it, or that nothing does and why.</summary>
public sealed partial class SecurityTableTests
{
    /// <summary>The numbers of levels 1 and 2, section by section; what the standard deleted or asks of level 3 alone is not among them.</summary>
    private static readonly Dictionary<string, string> Standard = new()
    {
        ["1.1"] = "1-7",
        ["1.2"] = "1-4",
        ["1.4"] = "1,4,5",
        ["1.5"] = "1-4",
        ["1.6"] = "1-4",
        ["1.7"] = "1-2",
        ["1.8"] = "1-2",
        ["1.9"] = "1-2",
        ["1.10"] = "1",
        ["1.11"] = "1-2",
        ["1.12"] = "2",
        ["1.14"] = "1-6",
        ["2.1"] = "1-12",
        ["2.2"] = "1-3",
        ["2.3"] = "1-3",
        ["2.4"] = "1-5",
        ["2.5"] = "1-7",
        ["2.6"] = "1-3",
        ["2.7"] = "1-6",
        ["2.8"] = "1-7",
        ["2.9"] = "1-3",
        ["2.10"] = "1-4",
        ["3.1"] = "1",
        ["3.2"] = "1-4",
        ["3.3"] = "1-4",
        ["3.4"] = "1-5",
        ["3.5"] = "1-3",
        ["3.7"] = "1",
        ["4.1"] = "1,2,3,5",
        ["4.2"] = "1-2",
        ["4.3"] = "1-3",
        ["5.1"] = "1-5",
        ["5.2"] = "1-8",
        ["5.3"] = "1-10",
        ["5.4"] = "1-3",
        ["5.5"] = "1-4",
        ["6.1"] = "1-3",
        ["6.2"] = "1-6",
        ["6.3"] = "1-2",
        ["6.4"] = "1-2",
        ["7.1"] = "1-4",
        ["7.2"] = "1-2",
        ["7.3"] = "1,3,4",
        ["7.4"] = "1-3",
        ["8.1"] = "1-4",
        ["8.2"] = "1-3",
        ["8.3"] = "1-8",
        ["9.1"] = "1-3",
        ["9.2"] = "1-4",
        ["10.2"] = "1-2",
        ["10.3"] = "1-3",
        ["11.1"] = "1-8",
        ["12.1"] = "1-3",
        ["12.2"] = "1",
        ["12.3"] = "1-6",
        ["12.4"] = "1-2",
        ["12.5"] = "1-2",
        ["12.6"] = "1",
        ["13.1"] = "1,3,4,5",
        ["13.2"] = "1,2,3,5,6",
        ["13.3"] = "1-2",
        ["13.4"] = "1-2",
        ["14.1"] = "1-4",
        ["14.2"] = "1-6",
        ["14.3"] = "2,3",
        ["14.4"] = "1-7",
        ["14.5"] = "1-4",
    };

    private static string Page => File.ReadAllText(Path.Combine(Repository.Root, "docs", "security.md"));

    [Fact]
    public void Each_requirement_stands_there_once_as_held_or_as_not_held_and_why()
    {
        var asked = Standard.SelectMany(s => Of(s.Value).Select(nth => $"{s.Key}.{nth}")).ToList();
        var (held, not) = (Rows("## OWASP ASVS 4.0.3, level 2"), Rows("### What does not hold, and why"));

        asked.Except(held.Concat(not)).ShouldBeEmpty("Said of neither.");
        held.Intersect(not).ShouldBeEmpty("Said of both.");
        not.ShouldNotBeEmpty();
    }

    [Fact]
    public void Each_test_that_is_named_there_is_one_and_each_file_is_there()
    {
        var files = new[] { "tests", Path.Combine("console", "src") }
            .SelectMany(folder => Directory.EnumerateFiles(Path.Combine(Repository.Root, folder), "*.*s*", SearchOption.AllDirectories))
            .Select(Path.GetFileName)
            .ToHashSet();
        var table = Page[Page.IndexOf("## OWASP ASVS", StringComparison.Ordinal)..];

        Test().Matches(table).Select(m => m.Groups[1].Value).Where(test => !files.Contains($"{test}.cs")).ShouldBeEmpty();
        Script().Matches(table).Select(m => m.Groups[1].Value).Where(test => !files.Contains(test)).ShouldBeEmpty();
        Place()
            .Matches(table)
            .Select(m => m.Groups[1].Value)
            .Where(place => !File.Exists(Path.Combine(Repository.Root, place)))
            .ShouldBeEmpty();
    }

    [Fact]
    public void Each_row_that_the_script_tries_is_one_that_is_said_to_hold()
    {
        var script = File.ReadAllText(Path.Combine(Repository.Root, "tools", "check-asvs.mjs"));
        var tried = Tried().Matches(script).Select(m => m.Groups[1].Value).ToList();

        tried.Count.ShouldBeGreaterThan(25);
        tried.Except(Rows("## OWASP ASVS 4.0.3, level 2")).ShouldBeEmpty();
    }

    /// <summary>The numbers in the first column of the table under a heading, "2.8.1 to 2.8.7" as the seven they are.</summary>
    private static List<string> Rows(string heading)
    {
        var from = Page.IndexOf(heading, StringComparison.Ordinal);
        var end = Page.IndexOf("\n#", from + 1, StringComparison.Ordinal);
        var lines = Page[from..(end < 0 ? Page.Length : end)].Split('\n');
        return
        [
            .. lines
                .Where(line => line.StartsWith("| ", StringComparison.Ordinal) && char.IsDigit(line[2]))
                .SelectMany(line => line.Split('|')[1].Split(',').SelectMany(Numbers))
                .Distinct(),
        ];
    }

    private static IEnumerable<string> Numbers(string said) =>
        said.Split(" to ") is [var first, var last]
            ? Enumerable
                .Range(Last(first), Last(last) - Last(first) + 1)
                .Select(nth => string.Create(CultureInfo.InvariantCulture, $"{Section(first)}.{nth}"))
            : [said.Trim()];

    private static string Section(string number) => number.Trim()[..number.Trim().LastIndexOf('.')];

    private static int Last(string number) =>
        int.Parse(number.Trim()[(number.Trim().LastIndexOf('.') + 1)..], CultureInfo.InvariantCulture);

    private static IEnumerable<int> Of(string numbers) =>
        numbers
            .Split(',')
            .SelectMany(n =>
                n.Split('-') is [var first, var last]
                    ? Enumerable.Range(Last($".{first}"), Last($".{last}") - Last($".{first}") + 1)
                    : [Last($".{n}")]
            );

    [GeneratedRegex("`([A-Za-z]+Tests)`")]
    private static partial Regex Test();

    [GeneratedRegex("`([a-zA-Z]+\\.test\\.tsx?)`")]
    private static partial Regex Script();

    [GeneratedRegex("`((?:deploy|docs|\\.ci)/[^`]+)`")]
    private static partial Regex Place();

    [GeneratedRegex("^\\s+(?:\\.\\.\\.\\(tls\\s+\\? \\[)?\\['(\\d+\\.\\d+\\.\\d+)'", RegexOptions.Multiline)]
    private static partial Regex Tried();
}
