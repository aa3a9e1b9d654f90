using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps;

public sealed record ArrivedOnSite : FactBody
{
    public override string Told() => "Arrived on site";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { ArrivedAt = ticket.ArrivedAt ?? stamp.At };
}
