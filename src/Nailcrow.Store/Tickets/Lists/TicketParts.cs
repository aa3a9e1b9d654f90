using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Store.Tickets.Lists;

/// <summary>
/// Any part of an asset number, a serial, a site or a customer, by an index of all their groups of three characters (SQLite's FTS5
/// with its trigram tokeniser). Triggers of its migration keep it as the lists are.
/// </summary>
internal static class TicketParts
{
    /// <summary>Fewer characters make no group; they stand in so many tickets that looking from the newest back finds them soon.</summary>
    public const int Least = 3;

    /// <summary>Gathers them anew from the lists, whatever somebody made of them.</summary>
    public static async Task RefillAsync(NailcrowDb db)
    {
        await db.Database.ExecuteSqlRawAsync("INSERT INTO ticket_part (ticket_part) VALUES ('delete-all')");
        await db.Database.ExecuteSqlRawAsync(
            "INSERT INTO ticket_part (rowid, text) "
                + "SELECT number, asset || char(10) || coalesce(serial, '') || char(10) || site || char(10) || customer FROM ticket_line"
        );
    }

    public static IQueryable<TicketLineRow> Of(NailcrowDb db, IQueryable<TicketLineRow> lines, string text)
    {
        var number = TicketNumber.Parse(text) is Parsed<long>.Ok(var said) ? said : -1;
        var phrase = $"\"{text.Replace("\"", "\"\"")}\""; // as it is: nothing in it is a word of the query language
        var found = db.Database.SqlQuery<long>($"SELECT rowid AS \"Value\" FROM ticket_part WHERE ticket_part MATCH {phrase}");
        return lines.Where(l => l.Number == number || found.Contains(l.Number));
    }
}
