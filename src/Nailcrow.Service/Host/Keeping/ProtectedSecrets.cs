using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;
using Nailcrow.Store;

namespace Nailcrow.Service.Host.Keeping;

/// <summary>Secrets of senders, push addresses and calendars are kept under the service's own keys, and so lie in no copy in clear.</summary>
internal sealed class ProtectedSecrets(IDataProtectionProvider protection) : ISecretKeeper
{
    private readonly IDataProtector _protector = protection.CreateProtector("Nailcrow.Secrets");

    public string Protect(string secret) => _protector.Protect(secret);

    public string? Open(string kept)
    {
        try
        {
            return _protector.Unprotect(kept);
        }
        catch (CryptographicException)
        {
            return null;
        }
    }
}
