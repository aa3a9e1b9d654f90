using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Intake;

/// <summary>Alerts that are one fault, and the open ticket they join; null for a fault of its own.</summary>
public sealed record OneFault(long? Ticket, IReadOnlyList<Alert> Alerts);

/// <summary>Several alerts are one fault.</summary>
public static class Joining
{
    /// <summary>The open ticket of this appliance that is about the reported drive already; null for a fault of its own.</summary>
    public static long? Open(IEnumerable<TicketLine> openHere, FaultReported report) =>
        openHere.OrderBy(l => l.Number).FirstOrDefault(l => Same(l, report.Bay, report.Serial))?.Number;

    /// <summary>
    /// Which alerts of one appliance belong together. The set decides, not the order in which they came: what names a drive
    /// goes with that drive's ticket, else with the ticket of its array, since a second drive of one array is the first
    /// one's danger; what names neither goes with the oldest fault there is.
    /// </summary>
    /// <param name="arrayOf">The array each open ticket is about, where it is known.</param>
    public static IReadOnlyList<OneFault> Of(
        IReadOnlyList<TicketLine> openHere,
        IReadOnlyDictionary<long, string?> arrayOf,
        IEnumerable<Alert> alerts
    )
    {
        var open = openHere.OrderBy(l => l.Number).ToList();
        var told = WithArrays([.. alerts.OrderBy(a => a.At).ThenBy(a => a.Id)]);
        var faults = new List<(long? Ticket, string Key, List<Alert> Alerts)>();
        foreach (var alert in told.Where(a => !IsVague(a)))
        {
            // Drives whose array nobody knows are taken as one fault: a machine that loses power loses many at a time.
            var ticket =
                open.Find(l => Same(l, alert.Bay, alert.Serial))?.Number
                ?? open.Find(l => arrayOf.GetValueOrDefault(l.Number) == alert.Array)?.Number;
            var key = ticket is { } number ? $"T{number}" : $"array {alert.Array}";
            Add(faults, ticket, key, alert);
        }
        foreach (var alert in told.Where(IsVague))
            if (open.Count > 0)
                Add(faults, open[0].Number, $"T{open[0].Number}", alert);
            else
                Add(faults, null, faults.Count > 0 ? faults[0].Key : "machine", alert);
        return [.. faults.Select(f => new OneFault(f.Ticket, f.Alerts))];
    }

    /// <summary>What one alert says of a drive's array holds for the others of that drive.</summary>
    private static List<Alert> WithArrays(IReadOnlyList<Alert> told)
    {
        var named = told.Where(a => a.Array is not null && Drive(a) is not null).ToLookup(Drive, a => a.Array);
        return [.. told.Select(a => a.Array is null && Drive(a) is { } drive ? a with { Array = named[drive].FirstOrDefault() } : a)];
    }

    private static string? Drive(Alert alert) => alert.Bay ?? alert.Serial ?? alert.Name;

    private static void Add(List<(long? Ticket, string Key, List<Alert> Alerts)> faults, long? ticket, string key, Alert alert)
    {
        if (faults.Find(f => f.Key == key) is { Alerts: { } there })
            there.Add(alert);
        else
            faults.Add((ticket, key, [alert]));
    }

    private static bool IsVague(Alert alert) => alert is { Bay: null, Serial: null, Name: null, Array: null };

    private static bool Same(TicketLine line, string? bay, string? serial) =>
        serial is not null && line.Serial is { } known
            ? SerialComparison.Between(serial, known).Outcome == SerialOutcome.Exact
            : bay is not null && line.Bay is { } there && string.Equals(bay, there, StringComparison.OrdinalIgnoreCase);
}
