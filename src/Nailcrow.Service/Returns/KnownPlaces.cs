using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Service.People;
using Nailcrow.Store.Returns;

namespace Nailcrow.Service.Returns;

/// <summary>Whoever names a depot or a van means one that there is, or says that it is new.</summary>
internal sealed class KnownPlaces(DepotNames depots, KnownPeople people)
{
    /// <param name="isNew">Another depot than the one it reads nearly like.</param>
    public async Task<NamedPlace> OfAsync(Holder said, bool isNew, CancellationToken ct) =>
        NamedPlace.Of(
            said,
            said.Kind == HolderKind.Depot ? await depots.ForAsync(said.Name.Trim(), ct) : [],
            said.Kind == HolderKind.Van ? await people.EngineersAsync(ct) : [],
            isNew
        );

    /// <summary>What has to be done where it is another one, and cannot be said in the same breath.</summary>
    public const string Begins = "A new depot begins with the first part that is taken in there at the stores' desk.";

    /// <summary>
    /// An entry with its place by the name that it goes by. Whoever writes an entry cannot be asked about it: where a depot is meant that
    /// is only nearly called so, it is said again by its name, and a new one begins at the stores' desk.
    /// </summary>
    /// <param name="kept">What was kept under its id before; it is answered as it was, by the name it was given then.</param>
    public async Task<Parsed<EntryBody>> MeantAsync(EntryBody body, EntryBody? kept, CancellationToken ct)
    {
        if (Named(body) is not { Kind: HolderKind.Depot or HolderKind.Van } said || !IsName(said))
            return new Parsed<EntryBody>.Ok(body);
        if (kept is not null)
            return new Parsed<EntryBody>.Ok(
                Named(kept) is { } then && NamedPlace.Of(said, [then.Name], [then.Name], false) is NamedPlace.There(var place)
                    ? Placed(body, place)
                    : body
            );
        return await OfAsync(said, false, ct) switch
        {
            NamedPlace.There(var there) => new Parsed<EntryBody>.Ok(there == said ? body : Placed(body, there)),
            NamedPlace.Near near => new Parsed<EntryBody>.Refused($"{near.Says} {Begins}"),
            NamedPlace.Nobodys(var says) => new Parsed<EntryBody>.Refused(says),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
    }

    /// <summary>What is no name at all is ruled on with the rest of its entry.</summary>
    private static bool IsName(Holder said) =>
        said.Name.Length <= Longest
        && !said.Name.Contains('\0', StringComparison.Ordinal)
        && (said.Kind == HolderKind.Van || said.Name.Length > 0);

    private const int Longest = 200;

    /// <summary>The place that an entry names; null where it names none.</summary>
    public static Holder? Named(EntryBody body) =>
        body switch
        {
            EntryCorrected { Instead: { } so } => Named(so),
            PartReserved reserved => Holder.OfPlace(reserved.Depot),
            PartTakenBack back => Holder.OfPlace(back.Depot, back.Shelf),
            SuppliesUsed { Place: { } place } => Holder.OfPlace(place),
            ReturnOpened opened => opened.To.AsKnown(),
            PartUsedElsewhere used => used.To,
            _ => null,
        };

    private static EntryBody Placed(EntryBody body, Holder to) =>
        body switch
        {
            EntryCorrected { Instead: { } so } corrected => corrected with { Instead = Placed(so, to) },
            PartReserved reserved => reserved with { Depot = to.Place() },
            PartTakenBack back => back with { Depot = to.Place() },
            SuppliesUsed used => used with { Place = to.Place() },
            ReturnOpened opened => opened with { To = to },
            PartUsedElsewhere used => used with { To = to },
            _ => body,
        };
}
