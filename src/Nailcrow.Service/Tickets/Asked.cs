using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Tickets;

/// <summary>What the service does on request is asked for under an id: asked again, as after a lost answer, it is not done again.</summary>
internal static class Asked
{
    /// <summary>The receipt of what was done under this id before; null where nothing was.</summary>
    public static Written.Kept? Before(TicketRecord record, Guid? id) =>
        id is { } asked && record.Find(asked) is { } entry ? new(entry, record, Repeated: true) : null;
}
