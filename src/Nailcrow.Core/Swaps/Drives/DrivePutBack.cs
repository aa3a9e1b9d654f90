using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>A drive pulled by mistake went straight back into its bay: a near miss, and the search begins again.</summary>
public sealed record DrivePutBack(string Bay, string Serial) : FactBody
{
    public override string Told() => $"Put {Serial} back into bay {Bay}";

    public override IReadOnlyCollection<Role> Writers() => OnSite;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        var back = ticket with { Custody = ticket.Custody.Move(serial, new(HolderKind.Bay, Bay), stamp) };
        if (ticket.Swap.WrongOut != serial)
            return back.Raise(
                stamp,
                "put-back",
                $"{serial} was put back into bay {Bay}, but the drive that was out by mistake is {ticket.Swap.WrongOut ?? "none"}."
            );
        return back with
        {
            Swap = ticket.Swap with
            {
                WrongOut = null,
                NearMisses = ticket.Swap.NearMisses.Add(
                    new(Bay, serial, stamp.At, stamp.By, stamp.Entry, OnPurpose: TrialPull.AllowedBy(ticket))
                ),
            },
        };
    }
}
