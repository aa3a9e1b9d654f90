using System.Text.RegularExpressions;
using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;

namespace Nailcrow.Architecture.Tests;

/// <summary>A stranger opens a room and finds small files with one idea each.</summary>
public partial class ReadableTests
{
    private const int LongestFunction = 60;
    private const int FilesInARoom = 12;

    [Fact]
    public void No_function_is_longer_than_can_be_seen_at_once()
    {
        var ours = Sources("src", "*.cs").Concat(Sources("tests", "*.cs")).Concat(Sources("bench", "*.cs")).SelectMany(Functions);
        var consoles = Sources("console/src", "*.ts").Concat(Sources("console/src", "*.tsx")).SelectMany(ConsolesFunctions);
        var all = ours.Concat(consoles).ToList();

        all.Count.ShouldBeGreaterThan(5_000);
        all.Where(f => f.Lines > LongestFunction).Select(f => $"{f.Name}: {f.Lines} lines").ShouldBeEmpty();
    }

    [Fact]
    public void No_room_has_more_files_than_can_be_overlooked() =>
        Sources("src", "*.cs")
            .Where(file => !IsGenerated(file))
            .Concat(Sources("console/src", "*.ts").Concat(Sources("console/src", "*.tsx")).Where(file => !IsTestOfAFile(file)))
            .GroupBy(file => Path.GetDirectoryName(file))
            .Where(room => room.Count() > FilesInARoom)
            .Select(room => $"{room.Key}: {room.Count()} files")
            .ShouldBeEmpty();

    /// <summary>Where time itself is what is tried; with whose time it is.</summary>
    private static readonly string[] MayTakeTime =
    [
        "tests/Nailcrow.Running/Soon.cs", // between two looks
        "tests/Nailcrow.Running/Fire/", // a storm lasts as long as it lasts
        "tests/Nailcrow.Service.Tests/Nodes/UnderFireTests.cs", // a node sleeps
        "tests/Nailcrow.Service.Tests/Host/KilledTests.cs", // killed at a moment nobody chose
        "tests/Nailcrow.Service.Tests/Tickets/TicketTests.cs", // a line that is slow
    ];

    [Fact]
    public void No_test_waits_for_a_length_of_time_and_hopes()
    {
        var waiting = Sources("tests", "*.cs")
            .SelectMany(file =>
                CSharpSyntaxTree
                    .ParseText(File.ReadAllText(file))
                    .GetRoot()
                    .DescendantNodes()
                    .OfType<MemberAccessExpressionSyntax>()
                    .Where(called => called.ToString() is "Task.Delay" or "Thread.Sleep" || called.Name.ToString() == "WaitForTimeoutAsync")
                    .Select(_ => Path.GetRelativePath(Repository.Root, file))
            )
            .Distinct()
            .ToList();

        waiting.Where(file => !MayTakeTime.Any(file.StartsWith)).ShouldBeEmpty();
        MayTakeTime.Where(may => !waiting.Exists(file => file.StartsWith(may, StringComparison.Ordinal))).ShouldBeEmpty();
    }

    private static bool IsGenerated(string file) => file.Contains("/Migrations/");

    // It lies beside the file that it is of.
    private static bool IsTestOfAFile(string file) => file.Contains(".test.") || file.Contains(".testing.") || file.EndsWith(".d.ts");

    private static IEnumerable<string> Sources(string folder, string pattern) =>
        Directory
            .EnumerateFiles(Path.Combine(Repository.Root, folder), pattern, SearchOption.AllDirectories)
            .Where(file => !Made().IsMatch(file));

    /// <summary>
    /// What stands between the braces, or after the arrow; what a function has inside it is a part of it. A value that is filled in, a
    /// line for each of its parts, is a list, and no longer to read for being long.
    /// </summary>
    private static IEnumerable<(string Name, int Lines)> Functions(string file)
    {
        var tree = CSharpSyntaxTree.ParseText(File.ReadAllText(file), path: file);
        foreach (var method in tree.GetRoot().DescendantNodes().OfType<BaseMethodDeclarationSyntax>())
        {
            var body = (SyntaxNode?)method.Body ?? method.ExpressionBody?.Expression;
            if (body is null)
                continue;
            var filledIn = body.DescendantNodes()
                .OfType<InitializerExpressionSyntax>()
                .Where(list => list.IsKind(SyntaxKind.ObjectInitializerExpression))
                .Select(Height)
                .DefaultIfEmpty()
                .Max();
            yield return (
                $"{Path.GetRelativePath(Repository.Root, file)} {Name(method)}",
                Height(body) + (method.Body is null ? 1 : -1) - filledIn
            );
        }
    }

    private static int Height(SyntaxNode node)
    {
        var span = node.GetLocation().GetLineSpan();
        return span.EndLinePosition.Line - span.StartLinePosition.Line;
    }

    private static string Name(BaseMethodDeclarationSyntax method) =>
        method switch
        {
            MethodDeclarationSyntax named => named.Identifier.Text,
            ConstructorDeclarationSyntax made => made.Identifier.Text,
            _ => method.Kind().ToString(),
        };

    /// <summary>The console's own check lays its files out: what begins at the margin ends at the margin.</summary>
    private static IEnumerable<(string Name, int Lines)> ConsolesFunctions(string file)
    {
        var lines = File.ReadAllLines(file);
        for (var from = 0; from < lines.Length; from++)
        {
            if (!Begins().IsMatch(lines[from]))
                continue;
            var to = Array.FindIndex(lines, from + 1, line => line.Length > 0 && line[0] is '}' or ')');
            yield return ($"{Path.GetRelativePath(Repository.Root, file)} {lines[from]}", to - from - 1);
        }
    }

    // What tools write is laid out by them.
    [GeneratedRegex(@"/(obj|bin|Migrations)/|schema\.d\.ts$")]
    private static partial Regex Made();

    [GeneratedRegex(@"^(export )?(default )?(async )?(function\b|const \w+ = .*(=>|\()).*[({]$")]
    private static partial Regex Begins();
}
