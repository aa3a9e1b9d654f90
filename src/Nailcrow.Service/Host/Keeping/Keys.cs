using System.Security.Cryptography.X509Certificates;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.DataProtection.KeyManagement;
using Nailcrow.Service.Host.Wire;
using Nailcrow.Store;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.OnFile;

namespace Nailcrow.Service.Host.Keeping;

/// <summary>The keys that protect cookies, tokens and secrets: in a folder beside the file, or in the database that nodes share.</summary>
internal static class Keys
{
    public static void AddKeys(this IServiceCollection services, ServiceSettings settings)
    {
        var protection = services.AddDataProtection().SetApplicationName("nailcrow");
        if (settings.Database is null)
        {
            OwnFiles.SecretFolder(Path.GetFullPath(settings.Data + ".keys"));
            protection.PersistKeysToFileSystem(new DirectoryInfo(settings.Data + ".keys"));
            return;
        }
        services
            .AddOptions<KeyManagementOptions>()
            .Configure<SharedKeys>((options, keys) => options.XmlRepository = new KeysInDatabase(keys));
        if (Certificate(settings) is { } certificate)
            protection
                .ProtectKeysWithCertificate(certificate)
                .UnprotectKeysWithAnyCertificate([.. settings.KeysCertificatesBefore.Select(Read)]);
    }

    /// <summary>What keys in a database are protected by; null where none is given, or none that can be used.</summary>
    public static X509Certificate2? Certificate(ServiceSettings settings) =>
        settings.KeysCertificate is { } files && TlsCertificate.Problem(files) is null && Problem(files) is null ? Read(files) : null;

    private static X509Certificate2 Read(TlsFiles files) => X509Certificate2.CreateFromPemFile(files.Certificate, files.Key);

    /// <summary>XML encryption, by which keys are protected, takes RSA.</summary>
    public static string? Problem(TlsFiles files)
    {
        using var certificate = X509Certificate2.CreateFromPemFile(files.Certificate, files.Key);
        return certificate.GetRSAPrivateKey() is null
            ? $"the certificate in '{Path.GetFullPath(files.Certificate)}' is for {certificate.PublicKey.Oid.FriendlyName}; "
                + "accepted: RSA, of 2048 bits or more."
            : null;
    }
}
