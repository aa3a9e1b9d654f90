using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Terms;
using YamlDotNet.Core;
using YamlDotNet.RepresentationModel;

namespace Nailcrow.Procedures.Language;

/// <summary>One mapping of a file, read key by key; whatever is wrong is reported where it stands.</summary>
internal sealed class Page(string file, YamlMappingNode node, Action<Place, string> report)
{
    public Place At => PlaceOf(node.Start);

    public void Report(string sentence) => report(At, sentence);

    public void ReportAt(string key, string sentence) => report(PlaceOf(Key(key)?.Start ?? node.Start), sentence);

    public bool Has(string key) => node.Children.ContainsKey(new YamlScalarNode(key));

    public void Allow(params IReadOnlyList<string> keys)
    {
        foreach (var key in node.Children.Keys)
            if (key is not YamlScalarNode { Value: { } name } || !keys.Contains(name))
                report(
                    PlaceOf(key.Start),
                    $"'{key}' is not known here.{Nearest.Hint($"{key}", keys)} Accepted: {string.Join(", ", keys)}."
                );
    }

    public string? Text(string key)
    {
        if (!node.Children.TryGetValue(new YamlScalarNode(key), out var value))
            return null;
        if (value is YamlScalarNode { Value.Length: > 0 } scalar)
            return scalar.Value;
        report(PlaceOf(value.Start), $"'{key}' is to be a text and not empty.");
        return null;
    }

    /// <summary>A text with the place of its first character, so that a mistake inside it can be pointed at.</summary>
    public WrittenText? Written(string key)
    {
        if (Text(key) is not { } text)
            return null;
        var scalar = (YamlScalarNode)node.Children[new YamlScalarNode(key)]; // Text has read it as one
        var quoted = scalar.Style is ScalarStyle.SingleQuoted or ScalarStyle.DoubleQuoted ? 1 : 0;
        return new(text, PlaceOf(scalar.Start) with { Column = scalar.Start.Column + quoted });
    }

    public IReadOnlyList<string>? Texts(string key)
    {
        if (!Has(key))
            return null;
        if (node.Children[new YamlScalarNode(key)] is YamlSequenceNode list && list.All(i => i is YamlScalarNode { Value.Length: > 0 }))
            return [.. list.Select(i => ((YamlScalarNode)i).Value!)]; // the line above checked it
        ReportAt(key, $"'{key}' is to be a list of texts.");
        return null;
    }

    public IReadOnlyList<Page> List(string key)
    {
        if (Has(key) && node.Children[new YamlScalarNode(key)] is YamlSequenceNode list && list.All(i => i is YamlMappingNode))
            return [.. list.Select(i => new Page(file, (YamlMappingNode)i, report))];
        ReportAt(key, $"'{key}' is to be a list of mappings.");
        return [];
    }

    /// <summary>The named lists of a mapping: places and what fills them.</summary>
    public IReadOnlyDictionary<string, IReadOnlyList<Page>> Lists(string key)
    {
        if (!Has(key))
            return new Dictionary<string, IReadOnlyList<Page>>();
        if (node.Children[new YamlScalarNode(key)] is YamlMappingNode map)
        {
            var inner = new Page(file, map, report);
            return map.Children.Keys.OfType<YamlScalarNode>().Select(k => k.Value ?? "").ToDictionary(k => k, inner.List);
        }
        ReportAt(key, $"'{key}' is to be a mapping of places to lists of steps.");
        return new Dictionary<string, IReadOnlyList<Page>>();
    }

    /// <summary>Texts by a word: what each word means.</summary>
    public IReadOnlyDictionary<string, string> Sayings(string key)
    {
        if (!Has(key))
            return new Dictionary<string, string>();
        if (
            node.Children[new YamlScalarNode(key)] is YamlMappingNode map
            && map.Children.All(s => s is { Key: YamlScalarNode { Value.Length: > 0 }, Value: YamlScalarNode { Value.Length: > 0 } })
        )
            return map.Children.ToDictionary(s => $"{s.Key}".ToLowerInvariant(), s => $"{s.Value}");
        ReportAt(
            key,
            $"'{key}' is to be a mapping of words to what each of them means, in quotes where that has a comma: {{ pull: \"the lever, and no drive\" }}."
        );
        return new Dictionary<string, string>();
    }

    public T? Word<T>(string key)
        where T : struct, Enum
    {
        if (Text(key) is not { } text)
            return null;
        switch (Words.Parse<T>(text, key))
        {
            case Parsed<T>.Ok(var value):
                return value;
            case Parsed<T>.Refused(var reason):
                ReportAt(key, reason + Nearest.Hint(text, Enum.GetValues<T>().Select(Words.Of)));
                break;
        }
        return null;
    }

    public bool Yes(string key)
    {
        var text = Text(key);
        if (text is not (null or "yes" or "no"))
            ReportAt(key, $"'{key}' is yes or no, not '{text}'.");
        return text == "yes";
    }

    /// <summary>Answer to target, in the order they are written.</summary>
    public IReadOnlyList<StepAnswer> Answers()
    {
        if (!Has("answers"))
            return [];
        if (node.Children[new YamlScalarNode("answers")] is not YamlMappingNode map)
        {
            ReportAt(
                "answers",
                "'answers' is to be a mapping: answer to the step it leads to, or to one of go on, end, back, hand over, next drive."
            );
            return [];
        }
        if (map.Children.Any(a => a.Key is not YamlScalarNode { Value.Length: > 0 } || a.Value is not YamlScalarNode { Value.Length: > 0 }))
        {
            ReportAt("answers", "An answer and the step it leads to are to be texts and not empty.");
            return [];
        }
        return [.. map.Children.Select(a => new StepAnswer($"{a.Key}", Label($"{a.Key}"), $"{a.Value}"))];
    }

    public static string Label(string answer) => char.ToUpperInvariant(answer[0]) + answer[1..].Replace('-', ' ');

    private YamlNode? Key(string key) => node.Children.Keys.OfType<YamlScalarNode>().FirstOrDefault(k => k.Value == key);

    private Place PlaceOf(Mark mark) => new(file, mark.Line, mark.Column);
}

/// <summary>A text and where its first character stands.</summary>
internal sealed record WrittenText(string Text, Place At);
