using Nailcrow.Core.Procedures;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Procedures;

/// <summary>Which procedure a ticket is worked by.</summary>
public static class Choosing
{
    /// <summary>Those that apply, the best first: by how redundancy comes back, then the one that is written for the fewest.</summary>
    public static IReadOnlyList<Procedure> For(IEnumerable<Procedure> published, SheetFacts facts) =>
        [
            .. published
                .Where(p => !p.ByName && p.AppliesTo.Holds(facts.Of) == true)
                .OrderByDescending(p => Rank(p.ComesBack))
                .ThenByDescending(p => p.AppliesTo.Facts().Distinct().Count())
                .ThenBy(p => p.Id, StringComparer.Ordinal),
        ];

    /// <summary>
    /// Where no swap helps, nothing else applies; a spare that stepped in and a machine that releases its drives decide what the
    /// end is.
    /// </summary>
    private static int Rank(ComesBack pattern) =>
        pattern switch
        {
            ComesBack.Cannot => 3,
            ComesBack.SpareSteppedIn => 2,
            ComesBack.ReleasedFirst => 1,
            _ => 0,
        };

    /// <summary>Why a sheet of this procedure cannot be made of this ticket yet; null where it can.</summary>
    public static string? Missing(Procedure procedure, SheetFacts facts, int parts)
    {
        if (procedure.ComesBack is ComesBack.Cannot or ComesBack.Unchanged)
            return null;
        if (facts.Drives.Count == 0)
            return "Nothing tells which drive is to come out; take a snapshot, or choose the drives.";
        var needsParts = procedure.Steps.Any(s => s.Step.Gate == GateFact.PartInHand);
        return needsParts && parts < facts.Drives.Count
            ? facts.Drives.Count == 1
                ? "No replacement is reserved; the sheet names its serial. Stores reserves one."
                : $"{parts} of {facts.Drives.Count} replacements are reserved; the sheet names their serials. Stores reserves them."
            : null;
    }
}
