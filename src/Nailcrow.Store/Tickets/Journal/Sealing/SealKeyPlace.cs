using Nailcrow.Store.Nodes;

namespace Nailcrow.Store.Tickets.Journal.Sealing;

/// <summary>Where the key for seals is kept; made when it is first needed.</summary>
public abstract class SealKeyPlace
{
    public abstract SealKey Key();

    /// <summary>The private key, PKCS #8 as PEM; null where none was made yet.</summary>
    public abstract string? Kept();

    /// <summary>Keeps a key that was made elsewhere, where there is none yet.</summary>
    public abstract void Keep(string pem);
}

/// <summary>A file beside the service's other keys.</summary>
internal sealed class SealKeyInFolder(SealPlaces places) : SealKeyPlace
{
    public override SealKey Key() => SealKey.In(places.KeyFolder);

    public override string? Kept() => SealKey.Kept(places.KeyFolder);

    public override void Keep(string pem) => SealKey.Keep(places.KeyFolder, pem);
}

/// <summary>The same for all nodes, unreadable for whoever has only the database: a seal is to prove what is in it.</summary>
internal sealed class SealKeyOfNodes(SharedKeys keys, ISecretKeeper keeper) : SealKeyPlace
{
    internal const string Kind = "seal";

    public override SealKey Key() => SealKey.Of(Kept() ?? Opened(First(SealKey.New())));

    public override string? Kept() => keys.All(Kind) is [var there, ..] ? Opened(there) : null;

    public override void Keep(string pem) => First(pem);

    /// <summary>Of nodes that keep one at once, the first one's.</summary>
    private string First(string pem) => keys.Keep(Kind, Kind, keeper.Protect(pem));

    private string Opened(string kept) => keeper.Open(kept) ?? throw new NoKeyException();
}
