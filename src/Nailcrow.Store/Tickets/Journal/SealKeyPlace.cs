using Nailcrow.Store.Nodes;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>Where the key for seals is kept; made when it is first needed.</summary>
internal abstract class SealKeyPlace
{
    public abstract SealKey Key();
}

/// <summary>A file beside the service's other keys.</summary>
internal sealed class SealKeyInFolder(SealPlaces places) : SealKeyPlace
{
    public override SealKey Key() => SealKey.In(places.KeyFolder);
}

/// <summary>The same for all nodes, unreadable for whoever has only the database: a seal is to prove what is in it.</summary>
internal sealed class SealKeyOfNodes(SharedKeys keys, ISecretKeeper keeper) : SealKeyPlace
{
    private const string Kind = "seal";

    public override SealKey Key()
    {
        var kept = keys.All(Kind) is [var there, ..] ? there : keys.Keep(Kind, Kind, keeper.Protect(SealKey.New()));
        return SealKey.Of(keeper.Open(kept) ?? throw new NoKeyException());
    }
}
