using Nailcrow.Core.Intake;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>What a machine said is believed as a machine's: nobody else's words stand under its name.</summary>
internal static class MachineWords
{
    private static readonly string[] Ways = ["redfish", "syslog", "cloudevents"];

    /// <returns>Why somebody may not write this themselves; null where they may.</returns>
    public static string? WhyNot(EntryBody body) =>
        Source(body is EntryCorrected { Instead: { } so } ? so : body) is { } source
        && Ways.Contains(source.Trim(), StringComparer.OrdinalIgnoreCase)
            ? $"What a machine says over {source} is kept by the service that hears it; have it asked (snapshot take, rebuild read). What you saw or "
                + "typed has another source, such as person."
            : null;

    private static string? Source(EntryBody body) =>
        body switch
        {
            SnapshotTaken taken => taken.Snapshot.Source,
            ReadingTaken read => read.Source,
            EvidenceSeen seen => seen.Source,
            _ => null,
        };
}
