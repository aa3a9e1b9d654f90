using System.Text.Json.Serialization;

namespace Nailcrow.Core.Terms;

[JsonConverter(typeof(KebabEnum<SerialOutcome>))]
public enum SerialOutcome
{
    Exact,
    Fragment,
    LikelyMisreading,
    Different,

    /// <summary>What was read is no serial that anybody here knows: it is asked for again, and says nothing of any drive.</summary>
    AskAgain,
}

/// <summary>How a serial that was read stands to the one expected, and a sentence to say it.</summary>
public sealed record SerialComparison(SerialOutcome Outcome, string Sentence)
{
    // Four characters of a serial repeat about once in a million drives of one model; three, once in thirty thousand.
    public const int ShortestFragment = 4;

    /// <param name="dashesCount">As they did on sheets of the first rules: what was followed by them must come out the same.</param>
    public static SerialComparison Between(string? read, string expected, bool dashesCount = false)
    {
        var target = SerialNumber.Normalise(expected);
        var meanings = SerialNumber.Meanings(read).ToList();
        var text = meanings[0];
        if (target.Length > 0 && meanings.Any(m => dashesCount ? m == target : WithoutDashes(m) == WithoutDashes(target)))
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

    /// <summary>
    /// One character is wrong, missing, too many, or two neighbours are swapped (Damerau, CACM 7/3, 1964: four of five slips of a
    /// hand are one of these).
    /// </summary>
    public static bool IsOneSlip(string read, string target)
    {
        var (a, b) = (WithoutDashes(SerialNumber.Normalise(read)), WithoutDashes(SerialNumber.Normalise(target)));
        if (Math.Abs(a.Length - b.Length) > 1 || a == b)
            return false;
        var same = a.Zip(b).TakeWhile(pair => pair.First == pair.Second).Count();
        return a.Length > b.Length ? a[(same + 1)..] == b[same..]
            : a.Length < b.Length ? a[same..] == b[(same + 1)..]
            : a[(same + 1)..] == b[(same + 1)..]
                || (same + 1 < a.Length && a[same] == b[same + 1] && a[same + 1] == b[same] && a[(same + 2)..] == b[(same + 2)..]);
    }

    // Makers print them for the eye, or not.
    private static string WithoutDashes(string serial) => serial.Replace("-", "", StringComparison.Ordinal);

    /// <summary>How a serial looks on a worn label: those that people may take for each other look the same.</summary>
    public static string Looks(string serial) => string.Concat(WithoutDashes(SerialNumber.Normalise(serial)).Select(Shape));

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
