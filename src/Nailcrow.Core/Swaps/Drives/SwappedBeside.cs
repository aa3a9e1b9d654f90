using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>A drive of this machine went in on another of its open tickets: what changed in that bay is explained by that.</summary>
/// <param name="Ticket">The ticket that it went in on.</param>
public sealed record SwappedBeside(long Ticket, string Bay, string Serial) : FactBody
{
    public override string Told() => $"{Serial} went into bay {Bay}, on {TicketNumber.Text(Ticket)}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Admin];

    public override string? ByServiceOnly() => "What was done on another ticket of the machine is noted by the service itself.";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { SwappedBeside = ticket.SwappedBeside.Add(Bay) };
}
