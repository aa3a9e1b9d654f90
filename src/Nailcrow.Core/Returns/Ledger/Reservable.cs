using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Returns.Ledger;

/// <summary>Whether a part may be set aside, by where it is and for whom it waits.</summary>
public static class Reservable
{
    /// <summary>Why not, as a sentence; null where it may.</summary>
    /// <param name="overruled">Somebody says in writing why it is taken although something speaks against it.</param>
    public static string? WhyNot(PartLine line, long ticket, bool overruled = false) =>
        line.ReservedFor.FirstOrDefault(t => t != ticket) is var other and > 0
            ? $"{line.Serial} is set aside for {TicketNumber.Text(other)} already. Take another part, or give it up there first."
        : line.Last is not { To: { } holder } last ? null
        : line.Apart == SetApart.Failed
            ? overruled ? null
                : $"{line.Serial} lies {holder.Where()}; {FailedIn(line)} called it faulty or worn, and nothing since says that it is good. "
                    + "Take another part, or say why this one is taken."
        : line.Apart is { } why ? $"{line.Serial} lies {holder.Where()}, {Told(why)}. Take another part."
        : holder.Kind switch
        {
            HolderKind.Bay => $"{line.Serial} is in bay {holder.Name} of {last.Asset}{Told(last)}. "
                + "Take another part; if it lies in a depot all the same, count it there first.",
            HolderKind.Destroyed or HolderKind.Lost or HolderKind.Maker => $"{line.Serial} is {holder.Where()}{Told(last)}. "
                + "Take another part; if it lies in a depot all the same, count it there first.",
            HolderKind.Carrier => $"{line.Serial} is {holder.Where()}{Told(last)}; it is set aside once it has come and is booked in.",
            _ => null,
        };

    private static string? FailedIn(PartLine line) => line.Movements.LastOrDefault(m => m.Failed == true)?.Asset;

    private static string Told(SetApart why) =>
        why switch
        {
            SetApart.Evidence => "as evidence",
            SetApart.DeadOnArrival => "dead on arrival",
            _ => "to be destroyed",
        };

    private static string Told(Movement last) => last.Ticket is { } ticket ? $", by {TicketNumber.Text(ticket)}" : "";
}
