using Nailcrow.Core.Returns.Supplies;

namespace Nailcrow.Client.Returns;

/// <summary>Something of a supply that stores writes down.</summary>
/// <param name="Id">Made once by whoever sends it: what is sent twice is taken once.</param>
/// <param name="Way">came, moved, used or counted.</param>
/// <param name="From">Where they were, or what was counted: a depot by its name, or "van of ilka".</param>
/// <param name="To">Where they are then.</param>
/// <param name="AsNamed">The name was looked at again: it is no other one that reads nearly the same.</param>
/// <param name="NewDepot">As of a part that comes in.</param>
public sealed record SupplyAsk(
    Guid Id,
    string Supply,
    SupplyWay Way,
    int Count,
    string? From = null,
    string? To = null,
    string? Note = null,
    bool AsNamed = false,
    bool NewDepot = false
);

/// <param name="Asks">Nothing is written down yet: something has to be said first.</param>
/// <param name="Near">A known one that reads nearly the same as the new name: which is meant has to be said.</param>
/// <param name="NearDepot">The same of the depot.</param>
public sealed record SupplyAnswer(string Says, bool Asks, string? Near = null, string? NearDepot = null);
