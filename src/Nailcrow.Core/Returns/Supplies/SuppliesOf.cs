using System.Globalization;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Supplies;

/// <summary>What an entry of a ticket means to the ledger of supplies.</summary>
public static class SuppliesOf
{
    /// <param name="cause">The entry between the two; one that puts another right changes what earlier ones said.</param>
    public static IReadOnlyList<SupplyMove> Between(Ticket before, Ticket after, Entry cause) =>
        ReferenceEquals(before.Supplies, after.Supplies)
            ? []
            :
            [
                .. Said(before).ExceptBy(Said(after).Select(m => m.Id), m => m.Id).Select(m => Undone(m, cause)),
                .. Said(after).ExceptBy(Said(before).Select(m => m.Id), m => m.Id),
            ];

    /// <summary>Every use of a ticket, as the ledger has it.</summary>
    public static IEnumerable<SupplyMove> Said(Ticket ticket) =>
        ticket.Supplies.Select(use => new SupplyMove(
            TicketMovements.Named(
                string.Create(CultureInfo.InvariantCulture, $"{ticket.Number}/{use.Entry}/{Key(use)}/{use.Count}/{use.From}")
            ),
            use.Supply,
            SupplyWay.Used,
            use.Count,
            use.At,
            use.By,
            use.From,
            Ticket: ticket.Number,
            Entry: use.Entry
        ));

    /// <summary>The same line is taken as so again.</summary>
    internal static SupplyMove Redone(SupplyMove again, Entry cause) => Other(again, SupplyWay.Redone, cause);

    private static SupplyMove Undone(SupplyMove move, Entry cause) => Other(move, SupplyWay.Undone, cause);

    private static SupplyMove Other(SupplyMove move, SupplyWay way, Entry cause) =>
        new(
            TicketMovements.Named($"{cause.Id}/{Words.Of(way)}/{move.Id}"),
            move.Supply,
            way,
            move.Count,
            cause.RecordedAt,
            cause.By,
            Ticket: cause.Ticket,
            Entry: cause.Id,
            Of: move.Id
        );

    private static string Key(SupplyUse use) => SupplyName.Parse(use.Supply) is Parsed<SupplyName>.Ok(var name) ? name.Key : use.Supply;
}
