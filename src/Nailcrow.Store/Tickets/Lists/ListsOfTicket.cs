using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Procedures;
using Nailcrow.Store.Swaps;

namespace Nailcrow.Store.Tickets.Lists;

/// <summary>All that the lists keep of one ticket.</summary>
internal sealed record ListsOfTicket(
    TicketLineRow Line,
    IReadOnlyList<DrivePlaceRow> Places,
    IReadOnlyList<SnapshotRow> Snapshots,
    IReadOnlyList<LifeEventRow> Life,
    IReadOnlyList<StepTimeRow> Times,
    IReadOnlyList<Movement> Movements,
    IReadOnlyList<SupplyMove> Uses,
    Entry Last
)
{
    public long Number => Line.Number;

    public static ListsOfTicket Of(TicketRecord record) =>
        new(
            Projecting.Line(record),
            [.. Projecting.Places(record)],
            [.. Projecting.Snapshots(record)],
            [.. Projecting.Life(record)],
            [.. Projecting.StepTimes(record)],
            TicketMovements.Between(new(record.Ticket.Number), record.Ticket, record.Arrived[^1]),
            [.. SuppliesOf.Said(record.Ticket)],
            record.Arrived[^1]
        );
}
