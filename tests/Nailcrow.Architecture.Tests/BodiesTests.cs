using System.Text.Json;
using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;

namespace Nailcrow.Architecture.Tests;

/// <summary>
/// What a call's body consists of is described when the first one comes. A handler that takes it bare has it described before the service
/// can answer anybody, and all of them together took a third of each start.
/// </summary>
public sealed class BodiesTests
{
    private static readonly string[] Ways = ["MapPost", "MapPut", "MapDelete", "MapPatch", "MapGet"];

    [Fact]
    public void No_body_of_a_call_is_described_before_the_service_answers()
    {
        var bodies = Bodies();
        var trees = Directory
            .EnumerateFiles(Path.Combine(Repository.Root, "src", "Nailcrow.Service"), "*.cs", SearchOption.AllDirectories)
            .Where(file => !file.Contains("/obj/", StringComparison.Ordinal))
            .Select(file => CSharpSyntaxTree.ParseText(File.ReadAllText(file)).GetRoot())
            .ToList();
        var handlers = trees.SelectMany(t => t.DescendantNodes()).OfType<InvocationExpressionSyntax>().Select(Handler).ToHashSet();
        var taken = trees
            .SelectMany(t => t.DescendantNodes())
            .OfType<MethodDeclarationSyntax>()
            .Where(m => handlers.Contains(m.Identifier.Text) && m.Modifiers.Any(SyntaxKind.StaticKeyword))
            .SelectMany(m => m.ParameterList.Parameters)
            .Select(p => p.Type?.ToString().TrimEnd('?') ?? "")
            .ToHashSet();

        bodies.Count.ShouldBeGreaterThan(30);
        bodies.Where(taken.Contains).ShouldBeEmpty();
        bodies.Where(body => !taken.Contains($"Sent<{body}>")).ShouldBeEmpty();
    }

    /// <summary>The method that a route is given: the last name in its second argument.</summary>
    private static string? Handler(InvocationExpressionSyntax call) =>
        call.Expression is MemberAccessExpressionSyntax { Name.Identifier.Text: var way } && Ways.Contains(way)
            ? call.ArgumentList.Arguments.ElementAtOrDefault(1)?.ToString().Split('.')[^1]
            : null;

    /// <summary>The types of all JSON bodies, as the interface is described.</summary>
    private static HashSet<string> Bodies()
    {
        using var described = JsonDocument.Parse(File.ReadAllText(Path.Combine(Repository.Root, "docs", "openapi.json")));
        return described
            .RootElement.GetProperty("paths")
            .EnumerateObject()
            .SelectMany(path => path.Value.EnumerateObject())
            .Where(call =>
                call.Value.TryGetProperty("requestBody", out var body)
                && body.GetProperty("content").TryGetProperty("application/json", out _)
            )
            .Select(call =>
                call
                    .Value.GetProperty("requestBody")
                    .GetProperty("content")
                    .GetProperty("application/json")
                    .GetProperty("schema")
                    .GetProperty("$ref")
                    .GetString()!
                    .Split('/')[^1]
            )
            .ToHashSet();
    }
}
