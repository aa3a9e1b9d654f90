using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Core.Swaps;

public sealed record ArrivedOnSite : FactBody
{
    public override string Told() => "Arrived on site";

    public override IReadOnlyCollection<Role> Writers() => OnSite;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => SiteVisits.Arrived(ticket, stamp.By, stamp.At);
}
