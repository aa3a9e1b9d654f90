using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Linking;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Tickets;

/// <summary>Whichever ticket is linked or joined to is there, and for joining of the same machine and open.</summary>
internal sealed class KnownTickets(TicketJournal journal)
{
    /// <returns>Why it cannot be meant; null where it can, or where the entry names none.</returns>
    public async Task<string?> WhyNotAsync(long number, EntryBody body, CancellationToken ct)
    {
        var named = body switch
        {
            TicketLinked linked => linked.To,
            TicketJoined joined => joined.Into,
            _ => (long?)null,
        };
        if (named is not { } other || other == number)
            return null; // to itself: the rule says why not
        if (await journal.ReadAsync(other, ct) is not { Ticket: { } there })
            return $"{TicketNumber.Text(other)} does not exist.";
        if (body is not TicketJoined)
            return null;
        var asset = (await journal.ReadAsync(number, ct))?.Ticket.Report?.Asset;
        return there.Report?.Asset != asset
                ? $"{TicketNumber.Text(other)} is about {there.Report?.Asset}, this one about {asset}: link them instead."
            : there.IsEnded ? $"{TicketNumber.Text(other)} is over; say that this is a repeat of it, or reopen it."
            : null;
    }
}
