using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Seen;

/// <summary>The chassis' locator light was switched, by the service or by hand.</summary>
public sealed record LocatorSwitched(bool On) : FactBody
{
    public override string Told() => $"Locator light {(On ? "on" : "off")}";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { LocatorOn = On };
}
