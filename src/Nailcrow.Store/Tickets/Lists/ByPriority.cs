using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Store.Tickets.Lists;

/// <summary>A page of what comes first. <see cref="Priority.InOrder"/> cuts all tickets into parts; each stands in an index in its own order.</summary>
internal static class ByPriority
{
    /// <param name="ended">Only ended ones, only open ones, or both: the ended come last.</param>
    public static async Task<IReadOnlyList<TicketLine>> PageAsync(
        IQueryable<TicketLineRow> lines,
        bool? ended,
        DateTimeOffset now,
        int skip,
        int most,
        Func<TicketLineRow, TicketLine> line,
        CancellationToken ct
    )
    {
        var page = new List<TicketLine>();
        foreach (var part in Priority.InOrder(now).Where(part => ended is null || part.IsEnded == ended))
        {
            if (page.Count == most)
                break;
            var within = Of(lines, part);
            var found = await within.OrderBy(l => l.DueOrder).ThenBy(l => l.Number).Skip(skip).Take(most - page.Count).ToListAsync(ct);
            page.AddRange(found.Select(line));
            // Whether what was to be left out lay in this part only is known once something came after it.
            skip = skip == 0 || found.Count > 0 ? 0 : skip - await within.CountAsync(ct);
        }
        return page;
    }

    private static IQueryable<TicketLineRow> Of(IQueryable<TicketLineRow> lines, PriorityPart part)
    {
        var (weight, from) = (part.Weight, part.From.UtcTicks);
        var of = lines.Where(l => l.Urgency == weight && l.DueOrder >= from);
        return part.Before?.UtcTicks is { } before ? of.Where(l => l.DueOrder < before) : of;
    }
}
