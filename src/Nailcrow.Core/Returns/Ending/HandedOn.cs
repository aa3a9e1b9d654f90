using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Ending;

/// <summary>A drive or part comes to a holder by another way than a box that was announced: what was announced for it is off.</summary>
internal static class HandedOn
{
    /// <param name="about">What a discrepancy would be about.</param>
    public static Ticket To(Ticket ticket, string serial, Holder holder, Stamp stamp, string about)
    {
        var key = SerialNumber.Normalise(serial);
        var was = ticket.Custody.HolderOf(key);
        var moved = ticket.HandedTo(key, holder, stamp) with
        {
            Returns = ticket.Returns.RemoveAll(r => r.Serial == key && r.ArrivedAt is null),
        };
        return was switch
        {
            null => moved.Raise(stamp, about, $"{key} went to {holder}, and nobody has recorded it on this ticket before."),
            { Kind: HolderKind.Bay } => moved.Raise(stamp, about, $"{key} went to {holder}; by the record it was still in {was}."),
            _ => moved,
        };
    }

    /// <summary>Why this names no drive; null where it does.</summary>
    public static string? Problem(string serial) => SerialNumber.Parse(serial) is Parsed<SerialNumber>.Refused no ? no.Reason : null;
}
