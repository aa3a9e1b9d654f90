using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Store.Tickets.Lists;

/// <summary>Any part of an asset number, a serial, a site or a customer, by an index of all their groups of three characters.</summary>
internal static class TicketParts
{
    /// <summary>Fewer characters make no group; they stand in so many tickets that looking from the newest back finds them soon.</summary>
    public const int Least = 3;

    public static IQueryable<TicketLineRow> Of(NailcrowDb db, IQueryable<TicketLineRow> lines, string text) =>
        db.Product.HavingPart(db, lines, text, TicketNumber.Parse(text) is Parsed<long>.Ok(var said) ? said : -1);
}
