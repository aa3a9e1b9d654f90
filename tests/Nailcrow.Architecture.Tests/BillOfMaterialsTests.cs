using System.Diagnostics;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace Nailcrow.Architecture.Tests;

/// <summary>Whoever runs Nailcrow can know what is in it that is not ours.</summary>
public sealed class BillOfMaterialsTests
{
    private static readonly string Root = Repository.Root;

    [Fact]
    public async Task Every_package_that_ships_is_told_with_its_version_its_hash_and_its_licence()
    {
        var components = (await TellAsync()).RootElement.GetProperty("components").EnumerateArray().ToList();
        var told = components.Select(c => c.GetProperty("bom-ref").GetString()!).ToHashSet(StringComparer.OrdinalIgnoreCase);

        foreach (var package in Asked())
            told.ShouldContain(t => t.StartsWith($"pkg:nuget/{package}@", StringComparison.OrdinalIgnoreCase), package);
        var console = JsonDocument
            .Parse(await File.ReadAllTextAsync(Path.Combine(Root, "console", "package.json"), TestContext.Current.CancellationToken))
            .RootElement;
        foreach (
            var package in console
                .GetProperty("dependencies")
                .EnumerateObject()
                .Select(d => d.Name.Replace("@", "%40", StringComparison.Ordinal))
        )
            told.ShouldContain(t => t.StartsWith($"pkg:npm/{package}@", StringComparison.Ordinal), package);
        foreach (var component in components)
        {
            component.GetProperty("hashes")[0].GetProperty("content").GetString()!.Length.ShouldBeGreaterThanOrEqualTo(64);
            component.TryGetProperty("licenses", out _).ShouldBeTrue(component.ToString());
        }
    }

    /// <summary>Whatever else is to be restored fails then, at whoever builds it.</summary>
    [Fact]
    public void Every_project_has_a_lock_that_says_each_package_to_the_hash_in_the_version_that_was_asked_for()
    {
        var asked = Regex
            .Matches(File.ReadAllText(Path.Combine(Root, "Directory.Packages.props")), @"Include=""([^""]+)"" Version=""([^""]+)""")
            .ToDictionary(m => m.Groups[1].Value, m => m.Groups[2].Value);
        foreach (
            var project in new[] { "src", "tests", "bench" }.SelectMany(folder =>
                Directory.EnumerateFiles(Path.Combine(Root, folder), "*.csproj", SearchOption.AllDirectories)
            )
        )
        {
            var kept = File.ReadAllText(Path.Combine(Path.GetDirectoryName(project)!, "packages.lock.json"));
            var locks = JsonDocument
                .Parse(kept)
                .RootElement.GetProperty("dependencies")
                .EnumerateObject()
                .SelectMany(framework => framework.Value.EnumerateObject());
            foreach (var package in locks.Where(p => p.Value.GetProperty("type").GetString() is not "Project"))
            {
                package.Value.GetProperty("contentHash").GetString().ShouldNotBeNullOrEmpty($"{package.Name} of {project}");
                if (package.Value.GetProperty("type").GetString() == "Direct" && asked.TryGetValue(package.Name, out var version))
                    package.Value.GetProperty("resolved").GetString().ShouldBe(version, $"{package.Name} of {project}");
            }
        }
    }

    [Theory]
    [InlineData("src/Nailcrow.Documents/Fonts/LICENCE.txt", "General Public License v.2")]
    [InlineData("console/public/licences/atkinson-hyperlegible-mono.txt", "SIL Open Font License")]
    [InlineData("console/public/licences/atkinson-hyperlegible-next.txt", "SIL Open Font License")]
    public void The_licence_of_a_font_that_ships_lies_beside_it(string file, string licence) =>
        File.ReadAllText(Path.Combine(Root, file)).ShouldContain(licence);

    /// <summary>What the projects that ship ask for; what only builds them (an analyzer, a generator) does not ship.</summary>
    private static IEnumerable<string> Asked() =>
        Directory
            .EnumerateFiles(Path.Combine(Root, "src"), "*.csproj", SearchOption.AllDirectories)
            .SelectMany(File.ReadAllLines)
            .Where(line => !line.Contains("PrivateAssets", StringComparison.Ordinal))
            .Select(line => Regex.Match(line, @"<PackageReference Include=""([^""]+)"""))
            .Where(match => match.Success)
            .Select(match => match.Groups[1].Value)
            .Distinct();

    private static async Task<JsonDocument> TellAsync()
    {
        var start = new ProcessStartInfo("node", [Path.Combine(Root, "tools", "bill-of-materials.mjs")])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        using var process = Process.Start(start) ?? throw new InvalidOperationException("node did not start.");
        var (told, wrong) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync(TestContext.Current.CancellationToken);
        process.ExitCode.ShouldBe(0, await wrong);
        return JsonDocument.Parse(await told);
    }
}
