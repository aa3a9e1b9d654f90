using System.Text.Json.Serialization;

namespace Nailcrow.Core.Terms;

[JsonConverter(typeof(KebabEnum<SerialOutcome>))]
public enum SerialOutcome
{
    Exact,
    Fragment,
    LikelyMisreading,
    Different,
}

/// <summary>How a serial that was read stands to the one expected, and a sentence to say it.</summary>
public sealed record SerialComparison(SerialOutcome Outcome, string Sentence)
{
    // Four characters of a serial repeat about once in a million drives of one model; three, once in thirty thousand.
    public const int ShortestFragment = 4;

    public static SerialComparison Between(string? read, string expected)
    {
        var target = SerialNumber.Normalise(expected);
        var meanings = SerialNumber.Meanings(read).ToList();
        var text = meanings[0];
        if (meanings.Contains(target))
            return new(SerialOutcome.Exact, $"{target}: the same serial.");
        if (text.Length >= ShortestFragment && text.Length < target.Length && target.EndsWith(text, StringComparison.Ordinal))
            return new(SerialOutcome.Fragment, $"{text} is the end of {target}; read the whole serial from the label.");
        foreach (var meaning in meanings)
            if (MisreadAt(meaning, target) is { Count: > 0 } places)
                return new(
                    SerialOutcome.LikelyMisreading,
                    $"{meaning} is not {target}, but only in characters people misread ({Told(meaning, target, places)}); look again or scan."
                );
        return new(SerialOutcome.Different, $"{(text.Length == 0 ? "Nothing" : text)} was read; {target} was expected.");
    }

    /// <summary>Places that differ, if each is a pair people confuse; null if one is not, or lengths differ.</summary>
    private static List<int>? MisreadAt(string read, string target)
    {
        if (read.Length != target.Length)
            return null;
        var places = Enumerable.Range(0, read.Length).Where(i => read[i] != target[i]).ToList();
        return places.TrueForAll(i => Shape(read[i]) == Shape(target[i])) ? places : null;
    }

    /// <summary>Characters that look alike on a worn label, each under one of them.</summary>
    private static char Shape(char c) =>
        c switch
        {
            'O' or 'Q' or 'D' => '0',
            'I' or 'L' => '1',
            'Z' => '2',
            'S' => '5',
            'G' => '6',
            'B' => '8',
            _ => c,
        };

    private static string Told(string read, string target, List<int> places) =>
        string.Join(", ", places.Select(i => $"{read[i]} for {target[i]} at place {i + 1}"));
}
