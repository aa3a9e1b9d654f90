using System.CommandLine;
using System.CommandLine.Parsing;
using System.Text.RegularExpressions;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Shell.Typing;

/// <summary>What was typed is no command: what is wrong with it in the words of the job, and the nearest one that is.</summary>
internal static partial class Mistyped
{
    public static int Tell(ParseResult parsed, Screen screen)
    {
        screen.Error(Sentence(parsed));
        return (int)ExitCode.Usage;
    }

    private static string Sentence(ParseResult parsed)
    {
        var command = parsed.CommandResult.Command;
        var path = Path(parsed.CommandResult);
        if (command.Subcommands.Count > 0)
            return parsed.UnmatchedTokens.FirstOrDefault(t => !t.StartsWith('-')) is { } typed
                ? $"There is no '{path} {typed}'.{Nearest.Hint(typed, Verbs(command))} There are: {string.Join(", ", Verbs(command))}."
                : $"'{path}' is not whole; it goes on with one of: {string.Join(", ", Verbs(command))}.";
        var errors = parsed.Errors.Select(e => InOurWords(e.Message, command)).Distinct().ToList();
        var told = string.Join(" ", errors.Select(e => e.TrimEnd('.') + "."));
        return $"{told} '{path} --help' tells the command.";
    }

    /// <summary>Names of the runtime's types say nothing to who replaces drives.</summary>
    private static string InOurWords(string message, Command command) =>
        NotOfType().Match(message) is { Success: true } odd
            ? $"'{odd.Groups["value"].Value}' is no {KindOf(odd.Groups["type"].Value)} for {odd.Groups["name"].Value}"
        : Missing().IsMatch(message) && command.Arguments is [_, ..] arguments
            ? $"It needs {string.Join(" ", arguments.Where(a => a.Arity.MinimumNumberOfValues > 0).Select(a => a.Name))}"
        : Unmatched().Match(message) is { Success: true } unknown
            ? $"'{unknown.Groups["value"].Value}' is not understood here.{Nearest.Hint(unknown.Groups["value"].Value, Options(command))}"
        : message;

    private static string KindOf(string type) =>
        type switch
        {
            _ when type.Contains("Int", StringComparison.Ordinal) => "whole number",
            _ when type.Contains("Decimal", StringComparison.Ordinal) || type.Contains("Double", StringComparison.Ordinal) => "number",
            _ when type.Contains("DateOnly", StringComparison.Ordinal) => "day (write one like 2026-03-31)",
            _ when type.Contains("Date", StringComparison.Ordinal) => "time (write one like 2026-03-01T08:00Z)",
            _ => "value",
        };

    private static string Path(CommandResult result) =>
        result.Parent is CommandResult parent ? $"{Path(parent)} {result.Command.Name}" : "nailcrow";

    private static List<string> Verbs(Command command) => [.. command.Subcommands.Where(c => !c.Hidden).Select(c => c.Name)];

    private static IEnumerable<string> Options(Command command) =>
        command.Options.Select(o => o.Name).Concat(["--json", "--at", "--as", "--service", "--help"]);

    [GeneratedRegex(@"^Cannot parse argument '(?<value>.*)' for (?:option|argument|command) '(?<name>.*)' as expected type '(?<type>.*)'")]
    private static partial Regex NotOfType();

    [GeneratedRegex("^Required argument missing")]
    private static partial Regex Missing();

    [GeneratedRegex("^Unrecognized command or argument '(?<value>.*)'")]
    private static partial Regex Unmatched();
}
