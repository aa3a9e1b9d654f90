using YamlDotNet.Core;
using YamlDotNet.Core.Events;
using YamlDotNet.RepresentationModel;

namespace Nailcrow.Procedures.Language;

/// <summary>
/// Loads YAML that may come from anybody: no anchors, aliases or tags, nothing deep and nothing endless, looked at
/// event by event before any of it is unfolded.
/// </summary>
internal static class GuardedYaml
{
    // The longest procedure in use has 60 steps; a file of a megabyte is not instructions for a person.
    private const int MostCharacters = 1_000_000;

    // root > chapters > chapter > steps > each > steps > step > answers: eight, and as much again.
    private const int Deepest = 16;

    private const int MostValues = 60_000;

    private const string AfterThis = "What comes after this is not YAML; quote texts that have '[', ']', '{', '}', ',' or ': ' in them.";

    public static YamlMappingNode? Load(string text, string holds, Action<long, long, string> report)
    {
        if (text.Length > MostCharacters)
            return Nothing(report, 1, 1, $"The file has {text.Length} characters; a procedure has at most {MostCharacters}.");
        try
        {
            if (Trap(text) is { } trap)
                return Nothing(report, trap.At.Line, trap.At.Column, trap.Sentence);
            return Documents(text, out var unreadable) switch
            {
                [{ RootNode: YamlMappingNode root }] => root,
                null => Nothing(report, unreadable.Line, unreadable.Column, AfterThis),
                _ => Nothing(report, 1, 1, $"This file holds one mapping with the keys {holds}."),
            };
        }
        catch (YamlException e)
        {
            return Nothing(report, e.Start.Line, e.Start.Column, $"This is not YAML: {e.Message}");
        }
    }

    private static (Mark At, string Sentence)? Trap(string text)
    {
        var parser = new Parser(new StringReader(text));
        var (depth, values) = (0, 0);
        Mark? unreadable;
        while (Next(parser, out unreadable))
        {
            depth += parser.Current?.NestingIncrease ?? 0;
            switch (parser.Current)
            {
                case AnchorAlias alias:
                    return (
                        alias.Start,
                        $"'*{alias.Value}' repeats another part; a procedure says everything where it stands, or uses a fragment."
                    );
                case NodeEvent { Anchor.IsEmpty: false } named:
                    return (
                        named.Start,
                        $"'&{named.Anchor.Value}' names a part to repeat; a procedure says everything where it stands, or uses a fragment."
                    );
                case NodeEvent { Tag.IsEmpty: false } tagged:
                    return (tagged.Start, $"'{tagged.Tag.Value}' asks for a type; a procedure has texts, lists and mappings only.");
                case { } deep when depth > Deepest:
                    return (deep.Start, $"This stands {depth} deep; a procedure goes at most {Deepest} deep.");
                case NodeEvent when ++values > MostValues:
                    return (parser.Current.Start, $"The file has more than {MostValues} values; no person follows that.");
                default:
                    break;
            }
        }
        return unreadable is { } at ? (at, AfterThis) : null;
    }

    /// <summary>Null where the library stumbles over events in an order that it did not expect, such as a value without its key.</summary>
    private static IList<YamlDocument>? Documents(string text, out Mark unreadable)
    {
        var (parser, yaml) = (new Parser(new StringReader(text)), new YamlStream());
        unreadable = Mark.Empty;
        try
        {
            yaml.Load(parser);
            return yaml.Documents;
        }
        catch (Exception e) when (e is ArgumentException or InvalidOperationException)
        {
            unreadable = parser.Current?.Start ?? Mark.Empty;
            return null;
        }
    }

    /// <summary>The library stumbles over some marks of a flow instead of naming them; what it had read until there is known.</summary>
    private static bool Next(Parser parser, out Mark? unreadable)
    {
        unreadable = null;
        var until = parser.Current?.End ?? Mark.Empty;
        try
        {
            return parser.MoveNext();
        }
        catch (InvalidOperationException)
        {
            unreadable = until;
            return false;
        }
    }

    private static YamlMappingNode? Nothing(Action<long, long, string> report, long line, long column, string sentence)
    {
        report(line, column, sentence);
        return null;
    }
}
