using System.Security.Cryptography;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Store.OnFile;

namespace Nailcrow.Store.Tickets.Journal.Sealing;

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
        if (Kept(folder) is { } there)
            return Of(there);
        var made = New();
        Keep(folder, made);
        return Of(made);
    }

    /// <summary>The private key that a folder holds; null where it holds none.</summary>
    public static string? Kept(string folder) => File.Exists(FileIn(folder)) ? File.ReadAllText(FileIn(folder)) : null;

    public static void Keep(string folder, string pem)
    {
        OwnFiles.Folder(folder);
        if (!File.Exists(FileIn(folder)))
            OwnFiles.Write(FileIn(folder), pem);
    }

    private static string FileIn(string folder) => Path.Combine(folder, "seal.pem");

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
