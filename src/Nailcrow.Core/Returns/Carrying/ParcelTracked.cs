using Nailcrow.Core.People;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Carrying;

/// <summary>What a carrier said of a parcel, told by itself or asked for.</summary>
/// <param name="Event">Their own name for it, by which a repeat is known.</param>
/// <param name="SaidAt">When it was so by their clock, which is told where it is ahead of ours.</param>
public sealed record ParcelTracked(
    string Carrier,
    string Label,
    string Event,
    ParcelStep Step,
    DateTimeOffset SaidAt,
    string? Place = null,
    string? Says = null
) : FactBody
{
    public override string Told() => $"{Carrier} {Label}: {Parcel.Told(new(Step, SaidAt, Place, Says))}";

    /// <summary>Somebody has to do something about it.</summary>
    internal bool IsTrouble => Step is ParcelStep.Lost or ParcelStep.Damaged or ParcelStep.ComesBack;

    public override IReadOnlyCollection<Role> Writers() => [Role.Admin];

    public override string? ByServiceOnly() =>
        "What a carrier says of its parcel is written by the service; what you saw yourself is a note, or the box booked in.";

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        if (ticket.Parcels.Find(p => p.Is(Carrier, Label)) is not { } parcel)
            return ticket; // it was taken back that they were asked, and its discrepancy says so
        var told = ticket with { Parcels = ticket.Parcels.Replace(parcel, parcel.With(new(Step, stamp.At, Place, Says))) };
        // Of a box that was opened already, nothing that they say makes trouble any more.
        var waited = parcel.Serials.Any(serial => ticket.Returns.Exists(r => r.Serial == serial && r.ArrivedAt is null));
        // What they do with a box that comes back brings nothing where it was to go.
        if (!parcel.Said.Exists(s => s.Step == ParcelStep.ComesBack))
            foreach (var serial in parcel.Serials)
                told = Moved(told, parcel, serial, stamp);
        return waited && Trouble(parcel) is { } trouble ? told.Raise(stamp, "parcel", trouble) : told;
    }

    /// <summary>Whatever they say of a parcel, they have had it; what they delivered to somebody who keeps it is there.</summary>
    private Ticket Moved(Ticket ticket, Parcel parcel, string serial, Stamp stamp)
    {
        if (ticket.Returns.Find(r => r.Serial == serial && r.ArrivedAt is null) is not { } open)
            return ticket;
        if (open.SentAt is null)
        {
            var sent = open with { Carrier = Carrier, Tracking = Label, SentAt = stamp.At };
            ticket = ticket.HandedTo(serial, new(HolderKind.Carrier, parcel.Carrier), stamp) with
            {
                Returns = ticket.Returns.Replace(open, sent),
            };
            open = sent;
        }
        if (Step == ParcelStep.ComesBack) // it is with them until somebody sends it anew
            return ticket with { Returns = ticket.Returns.Replace(open, open with { Carrier = null, Tracking = null, SentAt = null }) };
        // A depot opens the box and reads what is in it; with anybody else their own word is all there will be.
        return Step == ParcelStep.Delivered && open.To.Kind is HolderKind.Maker or HolderKind.Customer
            ? ticket.HandedTo(serial, open.To, stamp) with
            {
                Returns = ticket.Returns.Replace(open, open with { ArrivedAt = stamp.At }),
            }
            : ticket;
    }

    private string? Trouble(Parcel parcel)
    {
        var what = $"{Label} with {string.Join(", ", parcel.Serials)}";
        var says = string.IsNullOrWhiteSpace(Says) ? "" : $" They say: {Says.TrimEnd('.')}.";
        return Step switch
        {
            ParcelStep.Lost => $"{Carrier} has lost {what}.{says} Claim it from them; a lead writes off what does not turn up.",
            ParcelStep.Damaged => $"{Carrier} has damaged {what}.{says} Claim it from them, with pictures when it is opened.",
            ParcelStep.ComesBack => $"{Carrier} brings {what} back.{says} Send it anew once it is there, or book it in.",
            _ => null,
        };
    }
}
