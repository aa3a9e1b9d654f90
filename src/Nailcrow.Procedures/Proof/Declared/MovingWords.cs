using System.Collections.Frozen;

namespace Nailcrow.Procedures.Proof.Declared;

/// <summary>English words that move or empty a drive: as they are said to somebody, of somebody, and of what is done or being done.</summary>
internal static class MovingWords
{
    private static readonly Doing[] Out = [Doing.Out];
    private static readonly Doing[] Into = [Doing.In];
    private static readonly Doing[] Emptying = [Doing.Empties];

    private static readonly Dictionary<string, string[]> Irregular = new()
    {
        ["draw"] = ["drawn"],
        ["withdraw"] = ["withdrawn"],
        ["take"] = ["taken"],
        ["push"] = ["pushes"],
        ["press"] = ["presses"],
        ["lay"] = ["laid"],
        ["begin"] = ["begun"],
    };

    private static readonly FrozenDictionary<string, (string Word, Doing[] Doing)> Alone = Forms(
        (Out, "pull eject extract remove unplug unseat withdraw disconnect detach yank unmount draw lift hoist"),
        (Into, "insert reinsert seat reseat install refit"),
        ([Doing.Out, Doing.In], "swap replace exchange substitute"),
        (
            Emptying,
            "erase wipe overwrite format reformat initialise initialize reinitialise reinitialize zero shred purge sanitise sanitize "
                + "destroy delete clear discard scrub recreate"
        )
    );

    // These move a drive only together with the word that says whereto.
    private static readonly FrozenDictionary<string, (string Word, Doing[] Doing)> WithOut = Forms(
        (Out, "take slide ease get bring come pry prise push pop move pick tip screw")
    );

    private static readonly FrozenDictionary<string, (string Word, Doing[] Doing)> WithIn = Forms(
        (Into, "push slide put lower place fit fix press go click drop set screw slot plug mount return take ease lay hang move load shove")
    );

    private static readonly FrozenDictionary<string, (string Word, Doing[] Doing)> WithRebuild = Forms((Emptying, "start begin force run"));
    private static readonly FrozenDictionary<string, (string Word, Doing[] Doing)> WithAnew = Forms((Emptying, "set make create build"));

    private static readonly string[] OutWords = ["out", "off", "away", "from"];
    private static readonly string[] InWords = ["in", "into", "back", "home", "onto"];
    private static readonly string[] RebuildWords = ["rebuild", "rebuilding", "resync"];
    private static readonly string[] AnewWords = ["anew", "afresh", "scratch", "new"];

    /// <summary>What a word does to a drive, given the rest of its clause.</summary>
    public static IEnumerable<(string Word, Doing Doing)> Of(string word, IReadOnlyList<string> after)
    {
        var form = Collapsed(word);
        var (outward, inward) = (First(WithOut, form, after, OutWords), First(WithIn, form, after, InWords));
        return Found(Alone, form)
            .Concat(outward < inward ? Found(WithOut, form) : [])
            .Concat(inward < outward ? Found(WithIn, form) : [])
            .Concat(after.Any(RebuildWords.Contains) ? Found(WithRebuild, form) : [])
            .Concat(after.Any(AnewWords.Contains) ? Found(WithAnew, form) : [])
            .Distinct();
    }

    /// <summary>Where the first word stands that says whereto, so that "push it back into the bay it came from" goes in.</summary>
    private static int First(
        FrozenDictionary<string, (string Word, Doing[] Doing)> words,
        string form,
        IReadOnlyList<string> after,
        string[] whereto
    ) =>
        words.ContainsKey(form) && after.Select((w, i) => (w, i)).FirstOrDefault(a => whereto.Contains(a.w)) is { w: not null, i: var at }
            ? at
            : int.MaxValue;

    private static IEnumerable<(string Word, Doing Doing)> Found(
        FrozenDictionary<string, (string Word, Doing[] Doing)> words,
        string form
    ) => words.TryGetValue(form, out var found) ? found.Doing.Select(d => (found.Word, d)) : [];

    private static FrozenDictionary<string, (string, Doing[])> Forms(params (Doing[] Doing, string Words)[] words) =>
        words
            .SelectMany(w => w.Words.Split(' ').SelectMany(word => FormsOf(word).Select(form => (form: Collapsed(form), word, w.Doing))))
            .DistinctBy(f => f.form)
            .ToFrozenDictionary(f => f.form, f => (f.word, f.Doing), StringComparer.Ordinal);

    private static IEnumerable<string> FormsOf(string word)
    {
        var stem = word.EndsWith('e') ? word[..^1] : word;
        return [word, word + "s", stem + "ing", stem + "ed", .. Irregular.GetValueOrDefault(word, [])];
    }

    /// <summary>A letter said twice or thrice is said once: so doubled letters need no rule, and a slip of the hand hides no word.</summary>
    private static string Collapsed(string word) => string.Concat(word.Where((c, i) => i == 0 || word[i - 1] != c));
}
