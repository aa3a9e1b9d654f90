using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Returns.Ledger;

namespace Nailcrow.Core.Returns.Stores;

/// <summary>A part as the desk lists it.</summary>
/// <param name="Bytes">0 where nobody has said.</param>
/// <param name="ReservedFor">The ticket it is set aside for.</param>
/// <param name="Going">To whom it is on its way.</param>
/// <param name="UnwipedFrom">The machine whose data may still be on it.</param>
/// <param name="Ticket">The ticket that moved it last.</param>
/// <param name="Apart">Why it lies apart from all stock: to be destroyed, as evidence, dead on arrival, failed.</param>
public sealed record StoredPart(
    string Serial,
    string Model,
    long Bytes,
    Holder Holder,
    DateTimeOffset Since,
    long? ReservedFor = null,
    string? Going = null,
    DateOnly? DueBy = null,
    string? UnwipedFrom = null,
    long? Ticket = null,
    SetApart? Apart = null
);

/// <summary>A part to be taken off its shelf for somebody, the most urgent first.</summary>
/// <param name="NeededBy">When the engineer sets off, or the promise runs out; null where neither is known.</param>
public sealed record PickLine(StoredPart Part, long Ticket, string? Engineer, string Asset, string Site, DateTimeOffset? NeededBy);

/// <summary>How many of one model lie in one depot.</summary>
/// <param name="Free">Set aside for nobody, and no other machine's data on it.</param>
/// <param name="ToWipe">Of the rest: those that have to be wiped first.</param>
public sealed record ShelfLine(string Depot, string Model, long Bytes, int There, int Free, int ToWipe)
{
    /// <summary>One line for each model in a depot, by whatever names its parts were put there.</summary>
    public static IReadOnlyList<ShelfLine> Together(IEnumerable<ShelfLine> lines, ModelNames names) =>
        [
            .. lines
                .GroupBy(l => (l.Depot, Model: names.Of(l.Model)))
                .Select(g => new ShelfLine(
                    g.Key.Depot,
                    g.Key.Model,
                    g.Max(l => l.Bytes),
                    g.Sum(l => l.There),
                    g.Sum(l => l.Free),
                    g.Sum(l => l.ToWipe)
                ))
                .OrderBy(l => l.Depot, StringComparer.Ordinal)
                .ThenBy(l => l.Model, StringComparer.Ordinal),
        ];
}

/// <summary>What one person has with them.</summary>
public sealed record CarriedLine(Holder Holder, int Parts, DateTimeOffset Oldest);

/// <summary>How many of a model to order, and how that was reckoned.</summary>
/// <param name="Fitted">Fitted within the last <see cref="Ordering.Days"/> days.</param>
/// <param name="Says">The formula with its numbers in it.</param>
public sealed record OrderLine(string Model, int Fitted, int Free, int Order, string Says);

/// <summary>All that stores looks at in the morning.</summary>
/// <param name="OnTheWay">What somebody or a carrier has on its way, the earliest due first.</param>
/// <param name="Late">Of those: what should be there by now.</param>
/// <param name="ToInspect">What came back to a depot, and nobody has looked at yet.</param>
/// <param name="Apart">What lies apart from all stock: to be destroyed, as evidence, dead on arrival, failed.</param>
public sealed record StoresDesk(
    IReadOnlyList<PickLine> Pick,
    IReadOnlyList<ShelfLine> Shelves,
    IReadOnlyList<StoredPart> OnTheWay,
    IReadOnlyList<StoredPart> Late,
    IReadOnlyList<StoredPart> ToInspect,
    IReadOnlyList<StoredPart> ToWipe,
    IReadOnlyList<StoredPart> Apart,
    IReadOnlyList<CarriedLine> Carried,
    IReadOnlyList<OrderLine> Order
);

/// <summary>One part's whole line.</summary>
/// <param name="Told">Each movement as one sentence.</param>
public sealed record PartLineView(StoredPart? Now, string Serial, IReadOnlyList<Movement> Movements, IReadOnlyList<string> Told);
