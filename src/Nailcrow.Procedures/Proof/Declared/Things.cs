using System.Collections.Frozen;

namespace Nailcrow.Procedures.Proof.Declared;

/// <summary>The words for what must not be moved or emptied unawares: a drive, its bay, its carrier, its array, and the blanks that name one.</summary>
internal static class Things
{
    private static readonly FrozenSet<string> Named = With(
        ["drive", "disk", "disc", "bay", "slot", "carrier", "caddy", "sled", "tray", "array", "raid", "replacement", "member", "spare"],
        ["caddies", "{bay}", "{serial}", "{part-serial}", "{carrier}", "{array}", "{name}", "{drive-number}", "{drives}", "{seating}"]
    );

    // What a sentence may call a drive once it has been named, and what an emptied one loses.
    private static readonly FrozenSet<string> Meant = With(
        ["one", "volume", "partition", "pool", "label", "signature"],
        ["it", "them", "this", "these", "that", "those", "data", "contents", "everything", "all", .. Named]
    );

    /// <summary>Whether a text names one, so that what happens to it has to be declared.</summary>
    public static bool IsNamedIn(Said said) => said.Sentences().Any(s => s.Any(Named.Contains));

    /// <summary>Whether a sentence has anything that a word for moving or emptying could be about.</summary>
    public static bool AreMeantIn(IReadOnlyList<string> sentence) => sentence.Any(Meant.Contains);

    private static FrozenSet<string> With(IEnumerable<string> nouns, IEnumerable<string> others) =>
        nouns.SelectMany(n => new[] { n, n + "s" }).Concat(others).ToFrozenSet(StringComparer.Ordinal);
}
