using System.CommandLine;
using System.CommandLine.Parsing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Shell;

/// <summary>Arguments and options that are read in the same words everywhere.</summary>
internal static class Said
{
    public static Argument<long> Ticket(string name = "TICKET") =>
        new(name)
        {
            Description = "A ticket number: T-1042 or 1042.",
            HelpName = name,
            CustomParser = result => Read(result, TicketNumber.Parse),
        };

    public static Argument<string> Text(string name, string description) => new(name) { Description = description };

    public static Option<string?> Optional(string name, string description, string? placeholder = null) =>
        new(name) { Description = description, HelpName = placeholder ?? name.TrimStart('-').ToUpperInvariant() };

    public static Option<string> Needed(string name, string description, string? placeholder = null) =>
        new(name)
        {
            Description = description,
            HelpName = placeholder ?? name.TrimStart('-').ToUpperInvariant(),
            Required = true,
        };

    /// <summary>An option whose value is one word of a family; another word is refused with the family listed.</summary>
    public static Option<T?> OneOf<T>(string name, string description, string what)
        where T : struct, Enum
    {
        var option = new Option<T?>(name)
        {
            Description = $"{description} One of: {Words.List<T>()}.",
            HelpName = name.TrimStart('-').ToUpperInvariant(),
            CustomParser = result => Read(result, text => Words.Parse<T>(text, what)),
        };
        option.CompletionSources.Add(_ => Enum.GetValues<T>().Select(v => new System.CommandLine.Completions.CompletionItem(Words.Of(v))));
        return option;
    }

    /// <summary>One word of a family, where it is part of a longer text.</summary>
    /// <exception cref="UsageProblem">Another word; the message lists the family.</exception>
    public static T Word<T>(string text, string what)
        where T : struct, Enum =>
        Words.Parse<T>(text, what) switch
        {
            Parsed<T>.Ok(var value) => value,
            Parsed<T>.Refused(var reason) => throw new UsageProblem(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };

    private static T? Read<T>(ArgumentResult result, Func<string, Parsed<T>> parse)
    {
        switch (parse(result.Tokens[0].Value))
        {
            case Parsed<T>.Ok(var value):
                return value;
            case Parsed<T>.Refused(var reason):
                result.AddError(reason);
                break;
        }
        return default;
    }
}
