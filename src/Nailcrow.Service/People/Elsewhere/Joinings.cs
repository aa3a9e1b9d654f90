using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;

namespace Nailcrow.Service.People.Elsewhere;

/// <summary>
/// Who goes to the provider to say whom it means by them: in which of their sessions, sealed and good for five minutes. The browser comes
/// back from another site and shows no cookie then, and whoever has no such seal joins nobody.
/// </summary>
internal sealed class Joinings(IDataProtectionProvider protection)
{
    private static readonly TimeSpan GoesWithin = TimeSpan.FromMinutes(5);

    private readonly ITimeLimitedDataProtector _seal = protection.CreateProtector("nailcrow.elsewhere.joins").ToTimeLimitedDataProtector();

    public string Of(Guid session) => _seal.Protect(session.ToString(), GoesWithin);

    public Guid? Open(string joins)
    {
        try
        {
            return Guid.TryParse(_seal.Unprotect(joins), out var session) ? session : null;
        }
        catch (Exception e) when (e is CryptographicException or FormatException)
        {
            return null;
        }
    }
}
