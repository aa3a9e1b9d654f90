using Nailcrow.Core.Appliances;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Seen;

/// <summary>
/// The machine was looked at on another of its open tickets. How bad it is depends on the newest look, whoever took it, so the service
/// notes it on each of them.
/// </summary>
/// <param name="Ticket">The ticket it was taken on.</param>
public sealed record MachineSeen(Snapshot Snapshot, long Ticket, string SeenBy) : FactBody
{
    public override string Told() =>
        $"{SeenBy} looked at the machine on {TicketNumber.Text(Ticket)}: {new SnapshotTaken(Snapshot).Told().ToLowerInvariant()}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Admin];

    public override string? ByServiceOnly() =>
        "What was seen on another ticket is noted by the service itself; take a snapshot on this one.";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        new SnapshotTaken(Snapshot).Fold(ticket, stamp) with
        {
            LastLook = new(stamp.At, SeenBy, Ticket),
        };
}
