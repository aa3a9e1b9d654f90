namespace Nailcrow.Core.Terms;

/// <summary>Finds what a mistyped word was probably meant to be.</summary>
public static class Nearest
{
    /// <summary>" Did you mean 'x'?" when one candidate is at most a third of the word away, else nothing.</summary>
    public static string Hint(string word, IEnumerable<string> candidates)
    {
        var best = candidates.Select(c => (Word: c, Away: Distance(word, c))).OrderBy(c => c.Away).FirstOrDefault();
        return best.Word is not null && best.Away <= Math.Max(1, word.Length / 3) ? $" Did you mean '{best.Word}'?" : "";
    }

    /// <summary>The candidate that is the fewest slips of a hand away, and no more than so many; null where none is.</summary>
    public static T? Of<T>(string word, IEnumerable<T> candidates, Func<T, string> written, int most)
        where T : class =>
        candidates
            .Select(c => (Candidate: c, Away: Distance(word, written(c))))
            .Where(c => c.Away <= most)
            .OrderBy(c => c.Away)
            .Select(c => c.Candidate)
            .FirstOrDefault();

    /// <summary>Insertions, deletions, replacements and swaps of neighbours, one each (optimal string alignment, Damerau 1964).</summary>
    private static int Distance(string a, string b)
    {
        var d = new int[a.Length + 1, b.Length + 1];
        for (var i = 0; i <= a.Length; i++)
            d[i, 0] = i;
        for (var j = 0; j <= b.Length; j++)
            d[0, j] = j;
        for (var i = 1; i <= a.Length; i++)
        for (var j = 1; j <= b.Length; j++)
        {
            d[i, j] = Math.Min(Math.Min(d[i - 1, j], d[i, j - 1]) + 1, d[i - 1, j - 1] + (a[i - 1] == b[j - 1] ? 0 : 1));
            if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                d[i, j] = Math.Min(d[i, j], d[i - 2, j - 2] + 1);
        }
        return d[a.Length, b.Length];
    }
}
