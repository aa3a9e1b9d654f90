namespace Nailcrow.Store;

/// <summary>Makes a secret unreadable for whoever has only the database.</summary>
public interface ISecretKeeper
{
    string Protect(string secret);

    /// <returns>Null where it was kept under keys that are not here any more.</returns>
    string? Open(string kept);
}
