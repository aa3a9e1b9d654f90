using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Stores;

/// <summary>A part that was counted in one place, and is recorded in another.</summary>
public sealed record FoundHere(string Serial, Holder? Recorded, string Says);

/// <summary>What was scanned on a shelf or in a van, held against what the ledger has there.</summary>
/// <param name="Missing">Recorded there, and not scanned.</param>
/// <param name="Found">Scanned there, and recorded elsewhere.</param>
/// <param name="Unknown">Scanned, and nothing is known of them.</param>
/// <param name="Twice">Scanned more than once; each counts once.</param>
/// <param name="Unusable">What was scanned and is no serial.</param>
public sealed record Counted(
    Holder At,
    int Scanned,
    int AsRecorded,
    IReadOnlyList<StoredPart> Missing,
    IReadOnlyList<FoundHere> Found,
    IReadOnlyList<string> Unknown,
    IReadOnlyList<string> Twice,
    IReadOnlyList<string> Unusable
)
{
    /// <summary>Most serials of one count.</summary>
    public const int Most = 20_000;

    /// <param name="recorded">All parts that the ledger has there.</param>
    /// <param name="elsewhere">Those of the scanned that it has somewhere else.</param>
    public static Counted Of(
        Holder at,
        IReadOnlyCollection<string> scanned,
        IReadOnlyCollection<StoredPart> recorded,
        IReadOnlyDictionary<string, StoredPart> elsewhere
    )
    {
        var unusable = scanned.Where(s => SerialNumber.Parse(s) is Parsed<SerialNumber>.Refused).Distinct().ToList();
        var there = recorded.Select(p => p.Serial).ToHashSet();
        var read = scanned.Except(unusable).Select(Meant).ToList();
        var once = read.ToHashSet();
        return new(
            at,
            once.Count,
            once.Count(there.Contains),
            [.. recorded.Where(p => !once.Contains(p.Serial))],
            [
                .. once.Where(s => !there.Contains(s) && elsewhere.ContainsKey(s))
                    .Select(s => new FoundHere(s, elsewhere[s].Holder, $"{s} is here; by the record it is {elsewhere[s].Holder.Where()}.")),
            ],
            [.. once.Where(s => !there.Contains(s) && !elsewhere.ContainsKey(s))],
            [.. read.GroupBy(s => s).Where(g => g.Count() > 1).Select(g => g.Key)],
            unusable
        );

        // A label's code may carry a data identifier before the serial: it means the part that is known.
        string Meant(string code) =>
            SerialNumber.Meanings(code).FirstOrDefault(m => there.Contains(m) || elsewhere.ContainsKey(m)) ?? SerialNumber.Normalise(code);
    }
}
