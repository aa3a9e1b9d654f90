using Nailcrow.Core.Intake;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;

namespace Nailcrow.Core.Tickets;

/// <summary>What a machine reports because of what the engineer has just done to it, and not because something failed.</summary>
internal static class OwnDoing
{
    /// <summary>
    /// From the moment the sheet let somebody pull until the rebuild is over, what a machine reports of the swap's own bay, or of no
    /// bay in particular, is what the engineer just did. Of another bay it is news, until it is known whose drive came out.
    /// </summary>
    public static string? StepBehind(Ticket ticket, EvidenceSeen seen)
    {
        if (ticket.Run is not { } run || seen.Evidence == EvidenceKind.Symptom)
            return null;
        var swap = ticket.Swap;
        if (HandsIn.Since(ticket) is null && (!swap.HasBegun || RebuildIsOver(ticket)))
            return null;
        var bay = swap.Bay ?? Target.Label(ticket);
        var own = seen.Bay is null ? seen.Serial is null : string.Equals(seen.Bay, bay, StringComparison.OrdinalIgnoreCase);
        return own ? StepOf(run) : null;
    }

    /// <summary>A drive came out by mistake: what the machine said of its bay since hands went in was that.</summary>
    public static Ticket Explained(Ticket ticket, string bay, string serial) =>
        HandsIn.Since(ticket) is not { } since || ticket.Run is not { } run
            ? ticket
            : ticket with
            {
                Evidence =
                [
                    .. ticket.Evidence.Select(e =>
                        e.Step is null && e.At >= since && e.Kind != EvidenceKind.Symptom && e.IsAbout(bay, serial)
                            ? e with
                            {
                                Step = StepOf(run),
                            }
                            : e
                    ),
                ],
            };

    private static string? StepOf(Run run) => run.Visits.LastOrDefault()?.Step ?? run.Current;

    private static bool RebuildIsOver(Ticket ticket) =>
        ticket.Swap.InsertedAt is { } inserted && ticket.Readings.FindLast(r => r.At > inserted)?.IsOver() == true;
}
