using System.Globalization;
using Nailcrow.Core.People;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Language;

/// <summary>Reads one step. The key that holds the sentence is the step's kind.</summary>
internal static class StepReader
{
    public static readonly string[] Kinds = [.. Enum.GetValues<StepKind>().Select(Words.Of)];

    public static readonly string[] OtherKeys =
    [
        "id",
        "see",
        "hear",
        "if-not",
        "not-so",
        "normal-now",
        "records",
        "mark",
        "against",
        "needs",
        "seconds",
        "until",
        "points-at",
        "answers",
        "then",
        "when",
        "opens",
        "closes",
        "erases",
        "decides",
        "unit",
        "at-least",
        "at-most",
        "with",
        "allows",
        "moves",
        "means",
    ];

    /// <summary>A step with what is still open: its condition is parsed once all answers are known.</summary>
    public static WrittenStep? Read(string chapter, Page page)
    {
        page.Allow([.. Kinds, .. OtherKeys]);
        var id = page.Text("id");
        var kinds = Kinds.Where(page.Has).ToList();
        if (id is null || kinds.Count != 1)
        {
            page.Report(
                $"A step has an 'id' and exactly one of {string.Join(", ", Kinds)}; this one has {(kinds.Count == 0 ? "none" : string.Join(" and ", kinds))}."
            );
            return null;
        }
        var length = page.Text("seconds");
        int? seconds = int.TryParse(length, NumberStyles.None, CultureInfo.InvariantCulture, out var given) ? given : null;
        if (length is not null && seconds is null && !ModelProperties.Lengths.Contains(length))
            page.ReportAt(
                "seconds",
                $"'{length}' is not a length; give whole seconds or one of "
                    + $"{string.Join(", ", ModelProperties.Lengths)}.{Nearest.Hint(length, ModelProperties.Lengths)}"
            );
        var step = Filled(page, id, chapter, kinds[0], seconds);
        StepDemands.Check(page, step, length);
        return new(
            step,
            page.Written("when"),
            seconds is null ? length : null,
            page.Text("then"),
            page.Text("not-so"),
            page.At,
            OnlyWord(page, "moves", "nothing", "A step moves 'nothing', or says by 'records:' what moves"),
            page.Sayings("means")
        );
    }

    private static RunStep Filled(Page page, string id, string chapter, string kind, int? seconds) =>
        new(
            id,
            Enum.Parse<StepKind>(kind, ignoreCase: true),
            chapter,
            page.Text(kind) ?? "",
            page.Answers(),
            page.Text("see"),
            page.Text("hear"),
            page.Text("if-not"),
            page.Texts("normal-now"),
            page.Word<Records>("records"),
            page.Text("mark") is { } mark ? Marks.Named(mark) : null,
            page.Word<ScanTarget>("against"),
            page.Word<GateFact>("needs"),
            seconds,
            page.Text("until"),
            page.Word<PointsAt>("points-at") ?? PointsAt.Nothing,
            page.Text("opens"),
            page.Text("closes"),
            page.Yes("erases"),
            page.Word<Role>("decides"),
            page.Text("unit"),
            Number(page, "at-least"),
            Number(page, "at-most"),
            With: page.Texts("with"),
            AllowsPull: OnlyWord(page, "allows", "pull", "A call allows 'pull' or nothing")
        );

    /// <summary>A key that takes one word, or is not there.</summary>
    private static bool OnlyWord(Page page, string key, string word, string sentence)
    {
        var text = page.Text(key);
        if (text is not null && text != word)
            page.ReportAt(key, $"{sentence}, not '{text}'.");
        return text == word;
    }

    private static decimal? Number(Page page, string key)
    {
        if (page.Text(key) is not { } text)
            return null;
        if (decimal.TryParse(text, NumberStyles.Number, CultureInfo.InvariantCulture, out var number))
            return number;
        page.ReportAt(key, $"'{key}' is a number in the step's unit, not '{text}'.");
        return null;
    }
}

/// <summary>A step whose condition has not been parsed yet.</summary>
internal sealed record WrittenStep(
    RunStep Step,
    WrittenText? When,
    string? SecondsFrom,
    string? Then,
    string? NotSo,
    Place At,
    bool MovesNothing,
    IReadOnlyDictionary<string, string> Means
);
