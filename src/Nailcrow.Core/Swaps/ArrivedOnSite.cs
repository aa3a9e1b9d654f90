using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps;

public sealed record ArrivedOnSite : FactBody
{
    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { ArrivedAt = ticket.ArrivedAt ?? stamp.At };
}
