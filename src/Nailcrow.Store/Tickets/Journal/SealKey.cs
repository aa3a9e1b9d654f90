using System.Security.Cryptography;
using Nailcrow.Core.Tickets.Journal.Sealing;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>The service's key for seals.</summary>
public sealed class SealKey : ISealKey, IDisposable
{
    private readonly ECDsa _key;

    private SealKey(ECDsa key) => _key = key;

    public byte[] Public => _key.ExportSubjectPublicKeyInfo();

    /// <summary>SHA-256 of the public key in hex: what somebody who keeps seals should have on paper.</summary>
    public string Fingerprint => Convert.ToHexStringLower(SHA256.HashData(Public));

    /// <summary>Only checks: it belongs to nobody.</summary>
    public static SealKey OfNobody() => new(ECDsa.Create(ECCurve.NamedCurves.nistP256));

    public static SealKey In(string folder)
    {
        OwnFiles.Folder(folder);
        var file = Path.Combine(folder, "seal.pem");
        if (!File.Exists(file))
            OwnFiles.Write(file, New());
        return Of(File.ReadAllText(file));
    }

    /// <param name="pem">A private key, PKCS #8 as PEM (RFC 7468).</param>
    public static SealKey Of(string pem)
    {
        var key = ECDsa.Create();
        key.ImportFromPem(pem);
        return new(key);
    }

    /// <returns>A new private key, PKCS #8 as PEM.</returns>
    public static string New()
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        return key.ExportPkcs8PrivateKeyPem();
    }

    public byte[] Sign(byte[] said) => _key.SignData(said, HashAlgorithmName.SHA256);

    public bool Holds(byte[] said, byte[] signature, byte[] publicKey)
    {
        try
        {
            using var theirs = ECDsa.Create();
            theirs.ImportSubjectPublicKeyInfo(publicKey, out _);
            return theirs.VerifyData(said, signature, HashAlgorithmName.SHA256);
        }
        catch (CryptographicException)
        {
            return false;
        }
    }

    public void Dispose() => _key.Dispose();
}
