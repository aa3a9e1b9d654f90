namespace Nailcrow.Procedures.Proof.Declared;

/// <summary>A word that moves or empties a drive, in its plain form, and whether the sentence says not to.</summary>
internal sealed record Heard(string Word, Doing Doing, bool SaysNotTo, IReadOnlyList<string> Sentence);

/// <summary>
/// The second look at what a step says, beside what it declares: words that move or empty a drive, in any case and spelling. It warns
/// too often rather than too seldom; an author answers what it mistakes.
/// </summary>
internal static class SecondLook
{
    private static readonly string[] ClauseEnds = [Said.Pause, "and", "then", "but", "so"];

    private static readonly string[] Negators =
    [
        .. "not never nobody without dont doesnt didnt cannot cant wont mustnt shouldnt neither nor instead".Split(' '),
    ];

    // Whoever is told not to hesitate is told to go on.
    private static readonly string[] Spurs = ["hesitate", "fail", "forget", "wait", "mind", "stop", "delay", "only", "just"];

    // "Do not touch or pull it": so far back a word that says no still reaches.
    private const int Reach = 3;

    // "The pull", "a swap", "the pulled drive": spoken of, and not told to anybody.
    private static readonly string[] Articles = ["the", "a", "an"];

    // What a sentence may have beside a verb without yet saying what the verb is about.
    private static readonly string[] Beside = ["out", "off", "away", "in", "back", "again", "up", "now", "straight", "gently"];

    public static IEnumerable<Heard> In(Said said) => said.Sentences().SelectMany(In);

    private static IEnumerable<Heard> In(IReadOnlyList<string> sentence)
    {
        for (var at = 0; at < sentence.Count; at++)
            foreach (var (word, doing) in MovingWords.Of(sentence[at], After(sentence, at)))
                if (IsAboutOne(sentence, at) && !(at > 0 && Articles.Contains(sentence[at - 1])))
                    yield return new(word, doing, IsToldNotTo(sentence, at), sentence);
    }

    private static List<string> After(IReadOnlyList<string> sentence, int at) =>
        [.. sentence.Skip(at + 1).TakeWhile(w => !ClauseEnds.Contains(w))];

    private static List<string> Before(IReadOnlyList<string> sentence, int at) =>
        [.. sentence.Take(at).Reverse().TakeWhile(w => !ClauseEnds.Contains(w))];

    /// <summary>Its clause has a drive in it; where it names nothing at all, the sentence has ("pull, and bag the drive").</summary>
    private static bool IsAboutOne(IReadOnlyList<string> sentence, int at)
    {
        var after = After(sentence, at);
        return after.TrueForAll(w => Beside.Contains(w) || w.EndsWith("ly", StringComparison.Ordinal))
            ? Things.AreMeantIn(sentence)
            : Things.AreMeantIn([.. Before(sentence, at), .. after]);
    }

    private static bool IsToldNotTo(IReadOnlyList<string> sentence, int at)
    {
        if (at + 1 < sentence.Count && sentence[at + 1] is "nothing" or "none" or "no")
            return true;
        var before = Before(sentence, at).Take(Reach).ToList();
        return before.Exists(Negators.Contains) && !before.Exists(Spurs.Contains);
    }
}
