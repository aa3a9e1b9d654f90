using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;

namespace Nailcrow.Core.Returns.Fitting;

/// <summary>What to bring to a ticket.</summary>
/// <param name="Needed">What the part has to be, in a sentence.</param>
/// <param name="Plan">What the exchanges that were asked about would give.</param>
/// <param name="EachBay">For each member by itself the smallest size, of those one can buy, that gives all it can give.</param>
/// <param name="Upgrades">The best use of 1, 2, … of the drives in stock, where larger ones help.</param>
/// <param name="SetAside">The parts that are set aside for it and not in yet, each held against today's books once more.</param>
/// <param name="Spares">Which spares the customer keeps, and where; null where none are known.</param>
public sealed record BringView(
    string Needed,
    IReadOnlyList<PartFit> Parts,
    CapacityForecast? Capacity,
    IReadOnlyList<Upgrade> Upgrades,
    IReadOnlyList<string> Tools,
    Upgrade? Plan = null,
    IReadOnlyList<BaySize>? EachBay = null,
    string? Spares = null,
    IReadOnlyList<PartFit>? SetAside = null
);

/// <summary>Usable, protected and unused bytes now, and after the swap with the best part.</summary>
public sealed record CapacityForecast(Capacity Now, Capacity After, string Note);
