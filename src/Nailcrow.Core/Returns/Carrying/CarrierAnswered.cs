using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Carrying;

/// <summary>What a carrier answered that was asked to fetch a box: its number for it, or why not.</summary>
/// <param name="Asked">The entry they were asked with.</param>
/// <param name="Label">Their number, as it stands on the label; null where they refuse.</param>
public sealed record CarrierAnswered(Guid Asked, string Carrier, string? Label = null, DateOnly? CollectsOn = null, string? Refused = null)
    : FactBody
{
    public override string Told() =>
        Label is null
            ? $"{Carrier} does not fetch it: {Refused}"
            : $"{Carrier} fetches it as {Label}{(CollectsOn is { } day ? $", on {Parcel.Day(day)}" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Admin];

    public override string? ByServiceOnly() =>
        "What a carrier answers is written by the service that asked; where they were asked in another way, say that it is with them.";

    /// <summary>They were told not to come, and heard it.</summary>
    public static CarrierAnswered CalledOff(Guid asked, string carrier) => new(asked, carrier, Refused: "it was called off");

    internal override Guid? Cause() => Asked;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket.Parcels.Find(p => p.Asked == Asked) is { } parcel
            ? ticket with
            {
                Parcels = ticket.Parcels.Replace(
                    parcel,
                    parcel with
                    {
                        Label = Label,
                        BookedAt = stamp.At,
                        CollectsOn = CollectsOn,
                        Refused = Label is null ? Refused : null,
                    }
                ),
            }
            : ticket;
}
