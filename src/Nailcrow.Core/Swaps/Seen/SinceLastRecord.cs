using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps.Seen;

/// <summary>What is not as an earlier ticket left the machine, and was recorded by nobody: somebody else has been at it.</summary>
public static class SinceLastRecord
{
    /// <param name="ticket">The one that looks for the first time; what it was opened for is no news to it.</param>
    /// <param name="recorded">Serials of drives that some ticket moved after <paramref name="before"/>, normalised.</param>
    /// <returns>A sentence a bay, in the order of the bays; what nobody has read or said is no difference.</returns>
    public static IReadOnlyList<string> Differs(Ticket ticket, Snapshot before, Snapshot now, IReadOnlySet<string> recorded) =>
        [
            .. before
                .Bays.Select(was => (Was: was, Is: now.BayLabelled(was.Label)))
                .Where(b => b.Is is not null && IsKnown(b.Was) && IsKnown(b.Is))
                .Where(b => !IsTheSame(b.Was.Serial, b.Is!.Serial)) // there is one
                .Where(b => !(b.Is!.Serial is null && IsReported(ticket, b.Was)))
                .Where(b => Serials(b.Was, b.Is!).Any(s => !recorded.Contains(s)))
                .Select(b => Told(b.Was, b.Is!, now)),
        ];

    private static string Told(Bay was, Bay @is, Snapshot now) =>
        $"Bay {was.Label} held {was.Serial ?? "nothing"} and "
        + (@is.Serial is { } other ? $"now holds {other}" : "shows nothing now")
        + (now.Holding(was.Serial) is { } moved ? $"; {was.Serial} is in bay {moved.Label}." : ".");

    private static IEnumerable<string> Serials(Bay was, Bay @is) =>
        new[] { was.Serial, @is.Serial }.OfType<string>().Select(SerialNumber.Normalise);

    private static bool IsKnown(Bay bay) => bay.Serial is not null || bay.Role == BayRole.Empty;

    /// <summary>A fragment or a slip of whoever typed it says nothing of another drive.</summary>
    private static bool IsTheSame(string? was, string? now) =>
        was is null || now is null
            ? was == now
            : SerialComparison.Between(now, was).Outcome != SerialOutcome.Different
                || SerialComparison.Between(was, now).Outcome == SerialOutcome.Fragment;

    private static bool IsReported(Ticket ticket, Bay was) =>
        ticket.Report is { } report
        && (
            string.Equals(report.Bay, was.Label, StringComparison.OrdinalIgnoreCase)
            || (report.Serial is { } serial && IsTheSame(was.Serial, serial))
        );
}
