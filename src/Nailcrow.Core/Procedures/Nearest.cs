namespace Nailcrow.Core.Procedures;

/// <summary>Finds what a mistyped word was probably meant to be.</summary>
internal static class Nearest
{
    /// <summary>" Did you mean 'x'?" when one candidate is at most a third of the word away, else nothing.</summary>
    public static string Hint(string word, IEnumerable<string> candidates)
    {
        var best = candidates.Select(c => (Word: c, Away: Distance(word, c))).OrderBy(c => c.Away).FirstOrDefault();
        return best.Word is not null && best.Away <= Math.Max(1, word.Length / 3) ? $" Did you mean '{best.Word}'?" : "";
    }

    /// <summary>Levenshtein distance: insertions, deletions and replacements of one character.</summary>
    private static int Distance(string a, string b)
    {
        var row = Enumerable.Range(0, b.Length + 1).ToArray();
        for (var i = 1; i <= a.Length; i++)
        {
            var corner = row[0];
            row[0] = i;
            for (var j = 1; j <= b.Length; j++)
                (corner, row[j]) = (row[j], Math.Min(Math.Min(row[j], row[j - 1]) + 1, corner + (a[i - 1] == b[j - 1] ? 0 : 1)));
        }
        return row[^1];
    }
}
