using Nailcrow.Core.Intake;
using Nailcrow.Core.Rebuilds;

namespace Nailcrow.Core.Tickets;

/// <summary>What a machine reports because of what the engineer has just done to it, and not because something failed.</summary>
internal static class OwnDoing
{
    /// <summary>
    /// From the pull until the rebuild is over, what a machine reports of the swap's own bay, or of no bay in particular, is
    /// what the engineer just did. Of another bay it is news.
    /// </summary>
    public static string? StepBehind(Ticket ticket, EvidenceSeen seen)
    {
        if (ticket.Swap is not { HasBegun: true } swap || ticket.Run is not { } run || seen.Evidence == EvidenceKind.Symptom)
            return null;
        if (ticket.Readings.LastOrDefault() is { Progress: Progress.Done or Progress.Failed })
            return null;
        var own = seen.Bay is null ? seen.Serial is null : string.Equals(seen.Bay, swap.Bay, StringComparison.OrdinalIgnoreCase);
        return own ? run.Visits.LastOrDefault()?.Step ?? run.Current : null;
    }
}
