using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Nailcrow.StandIn.Redfish;

/// <summary>A certificate that the simulated management interface signed itself, as such interfaces do.</summary>
internal sealed class OwnCertificate(string? file)
{
    private X509Certificate2 _now = file is not null && File.Exists(file) ? Read(file) : Make(file);

    public X509Certificate2 Now => _now;

    /// <summary>Another one from now on, as after somebody changed its board.</summary>
    public string Renew()
    {
        _now = Make(file);
        return $"It shows another certificate now: {_now.GetCertHashString(HashAlgorithmName.SHA256)}.";
    }

    private static X509Certificate2 Make(string? file)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest("CN=management", key, HashAlgorithmName.SHA256);
        var names = new SubjectAlternativeNameBuilder();
        names.AddIpAddress(IPAddress.Loopback);
        request.CertificateExtensions.Add(names.Build());
        using var made = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddYears(5));
        var kept = made.Export(X509ContentType.Pkcs12);
        if (file is not null)
            File.WriteAllBytes(file, kept);
        return X509CertificateLoader.LoadPkcs12(kept, null);
    }

    private static X509Certificate2 Read(string file) => X509CertificateLoader.LoadPkcs12FromFile(file, null);
}
