using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Intake;

/// <summary>Several alerts are one fault.</summary>
public static class Joining
{
    /// <summary>The open ticket of this appliance that is about the reported drive already; null for a fault of its own.</summary>
    public static long? Open(IEnumerable<TicketLine> openHere, FaultReported report) =>
        openHere.OrderBy(l => l.Number).FirstOrDefault(l => Same(l, report))?.Number;

    private static bool Same(TicketLine line, FaultReported report) =>
        report.Serial is { } serial && line.Serial is { } known ? SerialComparison.Between(serial, known).Outcome == SerialOutcome.Exact
        : report.Bay is { } bay && line.Bay is { } there && string.Equals(bay, there, StringComparison.OrdinalIgnoreCase);
}
