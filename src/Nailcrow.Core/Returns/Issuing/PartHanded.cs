using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Issuing;

/// <summary>
/// A drive or part changes hands. What was issued for a ticket is in hand there for as long as an engineer has it, and no longer: a
/// part in a box, in a depot or lost cannot be fitted, whatever the run sheet waits for.
/// </summary>
internal static class PartHanded
{
    public static Ticket HandedTo(this Ticket ticket, string serial, Holder to, Stamp stamp)
    {
        var moved = ticket with { Custody = ticket.Custody.Move(serial, to, stamp) };
        return ticket.Parts.Find(p => p.Serial == serial) is { IssuedTo: not null } part && to.Kind != HolderKind.Engineer
            ? moved with
            {
                Parts = ticket.Parts.Replace(
                    part,
                    part with
                    {
                        IssuedTo = null,
                        Depot = to.Kind is HolderKind.Depot or HolderKind.Van ? to.Place() : part.Depot,
                    }
                ),
            }
            : moved;
    }
}
