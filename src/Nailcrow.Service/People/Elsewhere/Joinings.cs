using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.DataProtection;
using Nailcrow.Core.People.SigningIn;

namespace Nailcrow.Service.People.Elsewhere;

/// <summary>Whom a provider has let in, and in which session somebody asked that they be the same.</summary>
internal sealed record Joining(Guid Session, ToldElsewhere Told);

/// <summary>
/// Who goes to the provider to say whom it means by them, and comes back: sealed, and good for five minutes each way. The browser shows no
/// cookie of ours on its way back from another site; so a page of ours asks, by name, whether it is them, for a link can be sent to anybody.
/// </summary>
internal sealed class Joinings(IDataProtectionProvider protection)
{
    private static readonly TimeSpan Within = TimeSpan.FromMinutes(5);

    private readonly ITimeLimitedDataProtector _there = protection.CreateProtector("nailcrow.elsewhere.joins").ToTimeLimitedDataProtector();
    private readonly ITimeLimitedDataProtector _back = protection.CreateProtector("nailcrow.elsewhere.joined").ToTimeLimitedDataProtector();

    public string There(Guid session) => _there.Protect(session.ToString(), Within);

    public Guid? OpenThere(string joins) => Open(_there, joins) is { } said && Guid.TryParse(said, out var session) ? session : null;

    public string Back(Joining joining) => _back.Protect(JsonSerializer.Serialize(joining), Within);

    public Joining? OpenBack(string joining) => Open(_back, joining) is { } said ? JsonSerializer.Deserialize<Joining>(said) : null;

    private static string? Open(ITimeLimitedDataProtector seal, string sealedText)
    {
        try
        {
            return seal.Unprotect(sealedText);
        }
        catch (Exception e) when (e is CryptographicException or FormatException)
        {
            return null; // not ours, or too old
        }
    }
}
