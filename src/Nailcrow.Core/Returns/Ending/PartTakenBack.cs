using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Ending;

/// <summary>Stores takes a drive or part back over the counter, or finds it: no box was announced, and it is there.</summary>
/// <param name="Depot">Where it is now: a depot by its name, or "van of ilka".</param>
/// <param name="Shelf">Where it lies in the depot.</param>
public sealed record PartTakenBack(string Serial, string Depot, string? Shelf = null) : FactBody
{
    public override string Told() => $"{Serial} taken back into {Depot}{(Shelf is { } shelf ? $", shelf {shelf}" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Stores, Role.Dispatcher, Role.Lead];

    public override string? Problem(Ticket ticket) =>
        HandedOn.Problem(Serial) ?? (string.IsNullOrWhiteSpace(Depot) ? "Say which depot it is in." : null);

    /// <summary>What was set aside for the ticket stays so: another visit may fit it.</summary>
    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        HandedOn.To(ticket, Serial, Holder.OfPlace(Depot, Shelf), stamp, "taken-back");
}
