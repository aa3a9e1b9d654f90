using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Supplies;

/// <summary>What of a supply was used on a ticket, and where it was taken from. The ledger hears it from here.</summary>
public sealed record SupplyUse(string Supply, int Count, Holder From, DateTimeOffset At, string By, Guid Entry)
{
    public string Told() => $"{Count:N0} {Supply}";
}

/// <summary>Something without a serial was used up at the machine: a carrier, screws, a cable.</summary>
/// <param name="Supply">What it is called, in any case and with any blanks.</param>
/// <param name="Count">How many.</param>
/// <param name="Place">Where it was taken from: a depot by its name, "van of ilka"; null for the van of whoever writes it.</param>
/// <param name="AsNamed">The name was looked at again: it is a new one, and no other that reads nearly the same.</param>
public sealed record SuppliesUsed(string Supply, int Count, string? Place = null, bool? AsNamed = null) : FactBody
{
    public override string Told() => $"Used: {Count:N0} {Supply}{(Place is { } place ? $", from {Holder.OfPlace(place)}" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Stores, Role.Dispatcher, Role.Lead];

    public override string? Problem(Ticket ticket) =>
        !SupplyName.Parse(Supply).Is(out _, out var reason) ? reason
        : Count is < 1 or > SupplyMove.Most ? $"{Count:N0} cannot have been used; 1 to {SupplyMove.Most:N0} are taken."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Supplies = ticket.Supplies.Add(
                new(
                    Supply,
                    Count,
                    string.IsNullOrWhiteSpace(Place) ? new(HolderKind.Van, stamp.By) : Holder.OfPlace(Place),
                    stamp.At,
                    stamp.By,
                    stamp.Entry
                )
            ),
        };
}
