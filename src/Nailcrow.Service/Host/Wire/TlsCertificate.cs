using System.Net.Security;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Nailcrow.Service.Host.Wire;

/// <summary>Where the certificate lies; both as PEM (RFC 7468).</summary>
/// <param name="Certificate">The service's own first, then those that signed it.</param>
/// <param name="Key">Its private key, without a password.</param>
public sealed record TlsFiles(string Certificate, string Key);

/// <summary>
/// The certificate that is shown. Whoever renews it puts the new files in the place of the old ones: they are taken up within seconds, and
/// one that cannot be read is told and not taken.
/// </summary>
internal sealed class TlsCertificate(TlsFiles files, TimeProvider time, ILogger<TlsCertificate> log)
{
    private static readonly TimeSpan LookedAtEvery = TimeSpan.FromSeconds(5);

    private readonly Lock _lock = new();
    private (DateTime Certificate, DateTime Key) _as;
    private long _lookedAt;
    private SslStreamCertificateContext? _shown;

    /// <exception cref="InvalidOperationException">There is none that can be read, and never was.</exception>
    public SslStreamCertificateContext Shown()
    {
        lock (_lock)
        {
            if (_shown is null || time.GetElapsedTime(_lookedAt) > LookedAtEvery)
                LookAgain();
            return _shown ?? throw new InvalidOperationException($"No certificate could be read from {files.Certificate}.");
        }
    }

    /// <summary>What is wrong with the files, as a sentence; null where nothing is.</summary>
    public static string? Problem(TlsFiles files)
    {
        try
        {
            using var one = X509Certificate2.CreateFromPemFile(files.Certificate, files.Key);
            return null;
        }
        catch (Exception e) when (e is CryptographicException or IOException or UnauthorizedAccessException or ArgumentException)
        {
            return $"The certificate in '{Path.GetFullPath(files.Certificate)}' with the key in '{Path.GetFullPath(files.Key)}' cannot be used: {e.Message}";
        }
    }

    private void LookAgain()
    {
        _lookedAt = time.GetTimestamp();
        var now = (File.GetLastWriteTimeUtc(files.Certificate), File.GetLastWriteTimeUtc(files.Key));
        if (_shown is not null && now == _as)
            return;
        if (Problem(files) is { } problem)
        {
            log.LogError("{Problem} The one before is shown on", problem);
            return;
        }
        _shown = Read();
        _as = now;
        log.LogInformation(
            "The certificate of {Subject} is shown, good until {Until:O}",
            _shown.TargetCertificate.Subject,
            _shown.TargetCertificate.NotAfter
        );
    }

    private SslStreamCertificateContext Read()
    {
        var own = X509Certificate2.CreateFromPemFile(files.Certificate, files.Key);
        X509Certificate2Collection chain = [];
        chain.ImportFromPemFile(files.Certificate);
        return SslStreamCertificateContext.Create(own, [.. chain.Where(c => c.Thumbprint != own.Thumbprint)], offline: true);
    }
}
