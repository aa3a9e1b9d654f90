using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Returns.Supplies;
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

    /// <returns>Why a place that an entry names cannot be; null where it can, or where none is named.</returns>
    public async Task<string?> WhyNotAsync(EntryBody body, CancellationToken ct)
    {
        var named = (body is EntryCorrected { Instead: { } so } ? so : body) switch
        {
            PartTakenBack back => Holder.OfPlace(back.Depot),
            SuppliesUsed { Place: { } place } => Holder.OfPlace(place),
            ReturnOpened opened => opened.To.AsKnown(),
            PartUsedElsewhere used => used.To,
            _ => null,
        };
        // What a depot is called is said as it is said: an entry cannot be asked about.
        return named is { Kind: HolderKind.Van } && await OfAsync(named, false, ct) is NamedPlace.Nobodys(var says) ? says : null;
    }
}
