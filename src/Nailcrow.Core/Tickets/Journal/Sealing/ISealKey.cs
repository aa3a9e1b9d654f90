namespace Nailcrow.Core.Tickets.Journal.Sealing;

/// <summary>Signs and checks with ECDSA over P-256 and SHA-256 (FIPS 186-5); a signature is r and s, 32 bytes each.</summary>
public interface ISealKey
{
    /// <summary>The public key as SubjectPublicKeyInfo (RFC 5480), DER.</summary>
    byte[] Public { get; }

    byte[] Sign(byte[] said);

    /// <summary>Whether a signature was made over this by the owner of a public key, whichever key this is.</summary>
    bool Holds(byte[] said, byte[] signature, byte[] publicKey);
}
