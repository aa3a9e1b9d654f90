using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Tickets;

/// <summary>Which bay a ticket is about, and what has to go into it.</summary>
public static class Target
{
    /// <summary>
    /// The bay's label: of the step that is being done, of the sheet, of the drive whose turn it is, of the reported serial, as
    /// reported.
    /// </summary>
    public static string? Label(Ticket ticket) =>
        ticket is { Sheet: { } sheet, Run: var run } ? (sheet.Step(run?.Current) is { } step ? sheet.DriveOf(step).Bay : sheet.TargetBay)
        : ticket.Latest?.Holding(Serial(ticket)) is { } holding ? holding.Label
        : ticket.Report?.Bay;

    /// <summary>What the last snapshot shows there; null where nothing is known of it.</summary>
    public static Bay? Bay(Ticket ticket) => ticket.Latest?.BayLabelled(Label(ticket));

    /// <summary>
    /// Where the drive that is to come out still is; null once it is out, or where nobody knows which it is. A new drive in its bay
    /// is another.
    /// </summary>
    internal static string? StillIn(Ticket ticket, Snapshot now)
    {
        var serial = ticket.Sheet is { } sheet ? sheet.DriveOf(sheet.Step(ticket.Run?.Current)).Serial : Serial(ticket);
        return serial is null ? ticket.Report?.Bay : now.Holding(serial)?.Label;
    }

    /// <summary>The array at stake, as the last snapshot shows it.</summary>
    public static DriveArray? Array(Ticket ticket) =>
        ticket.Latest is { } now ? now.Arrays.FirstOrDefault(a => a.Name == Danger.Of(ticket).Array) : null;

    /// <summary>
    /// Bytes that a replacement has at least: what the array uses of each member, else what the old drive has; null where neither
    /// is known.
    /// </summary>
    public static long? LeastBytes(Ticket ticket) =>
        Array(ticket)?.MemberBytes ?? ticket.Before?.BayLabelled(Label(ticket))?.Bytes ?? Bay(ticket)?.Bytes;

    /// <summary>A drive that came out of the customer's machine has the customer's data on it until it was wiped.</summary>
    public static bool HoldsCustomersData(Ticket ticket, string serial)
    {
        var normal = SerialNumber.Normalise(serial);
        return ticket.Swaps.Any(s => s.OutSerial == normal) && !ticket.Wiped.Contains(normal);
    }

    private static string? Serial(Ticket ticket) =>
        ticket.Chosen.Count > 0 ? ticket.Chosen[Math.Min(ticket.EarlierSwaps.Count, ticket.Chosen.Count - 1)] : ticket.Report?.Serial;
}
