using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Rebuilds;

namespace Nailcrow.Core.Tickets.Telling;

/// <summary>How the rebuild stands, with what was read.</summary>
/// <param name="Readings">What a chart can show of them; all are asked for in pages.</param>
/// <param name="Chosen">What was chosen and agreed for it; null where nothing was.</param>
/// <param name="Count">How many there are in all.</param>
public sealed record RebuildView(RebuildLook Look, IReadOnlyList<Reading> Readings, int Count = 0, string? Chosen = null)
{
    // A chart is some 800 pixels wide, and a ticket's answer goes to phones.
    private const int MostReadings = 300;

    public static RebuildView Of(Ticket ticket, ApplianceModel? model, DateTimeOffset now)
    {
        // Readings from before the new drive went in are of another rebuild.
        var readings = ticket.Readings.Where(r => ticket.Swap.InsertedAt is not { } inserted || r.At > inserted).ToList();
        var bytes = ticket.Latest?.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet?.Array)?.MemberBytes;
        return new(
            new Watch(
                new WatchSettings(),
                bytes,
                model?.MegabytesPerSecond,
                ticket.RebuildChosen?.Copies ?? model?.RebuildCopies ?? RebuildCopies.WholeMember,
                ticket.Swap.InsertedAt
            ).Look(readings, now),
            Thinned.ToChart(readings, MostReadings),
            readings.Count,
            ticket.RebuildChosen?.Told()
        );
    }
}
