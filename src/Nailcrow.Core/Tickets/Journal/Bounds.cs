using System.Collections.Frozen;
using System.Globalization;
using System.Text.Json;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>One line of the table of bounds: which fields, what they take, and why no more.</summary>
/// <param name="Fields">Names of fields, wherever in a body they stand.</param>
public sealed record Bound(BoundKind Kind, IReadOnlyList<string> Fields, decimal Least, decimal Most, string Why);

/// <summary>What is bounded. The word is what a sentence and the table in docs/journal.md call it.</summary>
public enum BoundKind
{
    Characters,
    Items,
    Number,
    Time,
}

/// <summary>
/// What an entry from outside may hold. The bounds stand far beyond what the work needs and far below what harms: whoever
/// passes one made a mistake, and is told which.
/// </summary>
public static class Bounds
{
    private const long Petabyte = 1_000_000_000_000_000;

    // Deeper than any body is: a snapshot's bay's signs are four.
    private const int Deepest = 12;

    private const int DefaultCharacters = 200;
    private const int DefaultItems = 200;

    private static readonly DateTimeOffset Latest = new(2100, 1, 1, 0, 0, 0, TimeSpan.Zero);

    public static readonly IReadOnlyList<Bound> Table =
    [
        new(
            BoundKind.Characters,
            [
                "text",
                "symptom",
                "reason",
                "because",
                "note",
                "learnt",
                "how",
                "says",
                "statement",
                "method",
                "overruledBecause",
                "answer",
                "warnings",
            ],
            0,
            4_000,
            "a page of writing; what is longer is a document of its own"
        ),
        new(BoundKind.Characters, ["label", "bay"], 0, 40, "what can be printed beside a bay"),
        new(BoundKind.Characters, ["*"], 0, DefaultCharacters, "a name, a serial, a place, a word"),
        new(BoundKind.Items, ["bays"], 0, 1_200, "eleven chassis of 106 bays"),
        new(BoundKind.Items, ["*"], 0, DefaultItems, "arrays of a machine, drives of a job, signs of a bay"),
        new(BoundKind.Number, ["bytes", "memberBytes"], 0, 10m * Petabyte, "a hundred times the largest drive there is"),
        new(BoundKind.Number, ["designMembers", "members"], 1, 1_200, "every bay of such a machine"),
        new(BoundKind.Number, ["groups", "parity"], 1, 600, "pairs of every bay"),
        new(BoundKind.Number, ["group"], 0, 599, "counted from 0"),
        new(BoundKind.Number, ["count"], 0, 1_000_000_000, "log lines of a drive that does nothing but fail"),
        new(BoundKind.Number, ["respondHours", "restoreHours"], 0, 8_784, "a year"),
        new(
            BoundKind.Time,
            ["since", "from", "to", "takenAt", "dueBy", "until", "happenedAt", "holidays"],
            2000,
            2100,
            "years in which such machines stand"
        ),
    ];

    /// <summary>What of a body passes a bound, as a sentence with where, what and what is taken; null where nothing does.</summary>
    public static string? Problem(EntryBody body) => Problem(JsonSerializer.SerializeToElement(body, JournalJson.Default.EntryBody));

    internal static string? Problem(JsonElement body) => Passed(body, "", "", 0);

    private static string? Passed(JsonElement value, string path, string field, int depth) =>
        depth > Deepest
            ? $"{path} is nested more than {Deepest} deep."
            : value.ValueKind switch
            {
                JsonValueKind.Object => value
                    .EnumerateObject()
                    .Select(p => Passed(p.Value, path.Length == 0 ? p.Name : $"{path}.{p.Name}", p.Name, depth + 1))
                    .FirstOrDefault(p => p is not null),
                JsonValueKind.Array => OfItems(value, path, field, depth),
                JsonValueKind.String => OfText(value.GetString() ?? "", path, field),
                JsonValueKind.Number => OfNumber(value.GetDecimal(), path, field),
                _ => null,
            };

    private static string? OfItems(JsonElement list, string path, string field, int depth)
    {
        var most = For(BoundKind.Items, field)?.Most ?? DefaultItems;
        return list.GetArrayLength() > most
            ? $"{path} has {Told(list.GetArrayLength())} items; at most {Told(most)} are taken."
            : list.EnumerateArray()
                .Select((item, nth) => Passed(item, $"{path}[{nth}]", field, depth + 1))
                .FirstOrDefault(p => p is not null);
    }

    private static string? OfText(string text, string path, string field)
    {
        if (text.Contains(EndOfText.Character))
            return $"{path} has {EndOfText.Sentence}";
        // A word for a time may be one for a person elsewhere (a visit goes to an hour, a part to an engineer): the form tells.
        if (For(BoundKind.Time, field) is not null && Time(text) is { } time)
            return time < ServiceClock.Earliest || time >= Latest ? $"{path} is {text}; times from 2000 to 2099 are taken." : null;
        var most = For(BoundKind.Characters, field)?.Most ?? DefaultCharacters;
        return text.Length > most ? $"{path} has {Told(text.Length)} characters; at most {Told(most)} are taken." : null;
    }

    /// <summary>As bodies write them: a moment with its offset, or a day.</summary>
    private static readonly string[] TimeForms = ["yyyy-MM-ddTHH:mm:ss.FFFFFFFzzz", "yyyy-MM-dd"];

    private static DateTimeOffset? Time(string text) =>
        DateTimeOffset.TryParseExact(text, TimeForms, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var time)
            ? time
            : null;

    private static string? OfNumber(decimal number, string path, string field) =>
        For(BoundKind.Number, field) is { } bound && (number < bound.Least || number > bound.Most)
            ? $"{path} is {Told(number)}; {Told(bound.Least)} to {Told(bound.Most)} are taken."
            : null;

    private static readonly FrozenDictionary<(BoundKind, string), Bound> ByField = Table
        .SelectMany(b => b.Fields.Select(f => ((b.Kind, f), b)))
        .ToFrozenDictionary(p => p.Item1, p => p.b);

    private static Bound? For(BoundKind kind, string field) =>
        ByField.GetValueOrDefault((kind, field)) ?? ByField.GetValueOrDefault((kind, "*"));

    private static string Told(decimal number) => number.ToString("#,0.##", CultureInfo.InvariantCulture);
}
