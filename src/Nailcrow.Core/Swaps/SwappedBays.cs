using Nailcrow.Core.Appliances;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps;

/// <summary>Whether exactly what was meant to change has changed.</summary>
internal static class SwappedBays
{
    /// <summary>Null when another drive is in every bay that was swapped and nowhere else; a drive that was seated again is the same one.</summary>
    public static string? OtherThanMeant(Ticket ticket, Snapshot before, Snapshot after) =>
        SnapshotComparison.OtherThanOnly(
            [.. ticket.Swaps.Where(s => s.OutSerial != s.InSerial).Select(s => s.Bay).OfType<string>()],
            ticket.SwappedBeside,
            before,
            after
        );
}
