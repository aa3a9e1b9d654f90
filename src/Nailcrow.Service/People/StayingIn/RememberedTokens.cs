using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.DataProtection;

namespace Nailcrow.Service.People.StayingIn;

/// <summary>
/// Bearer tokens that were opened lately. Opening one takes as long as the rest of a small call; what is in it cannot
/// change, and its expiry is looked at on every call by whoever asks. Kept by hash, so that no token lies in memory.
/// </summary>
internal sealed class RememberedTokens(TicketDataFormat inner) : ISecureDataFormat<AuthenticationTicket>
{
    // One for each of 2,000 engineers, twice over; beyond that the memory starts afresh.
    private const int Most = 4_000;

    private readonly ConcurrentDictionary<string, AuthenticationTicket> _opened = new();

    public string Protect(AuthenticationTicket data) => inner.Protect(data);

    public string Protect(AuthenticationTicket data, string? purpose) => inner.Protect(data, purpose);

    public AuthenticationTicket? Unprotect(string? protectedText) => Unprotect(protectedText, null);

    public AuthenticationTicket? Unprotect(string? protectedText, string? purpose)
    {
        if (protectedText is null)
            return null;
        var hash = Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes($"{purpose}|{protectedText}")));
        if (_opened.TryGetValue(hash, out var known))
            return known;
        if (inner.Unprotect(protectedText, purpose) is not { } ticket)
            return null;
        if (_opened.Count >= Most)
            _opened.Clear();
        return _opened[hash] = ticket;
    }

    /// <summary>The framework's own protector for bearer tokens, remembered.</summary>
    public static RememberedTokens Over(IDataProtectionProvider protection) =>
        new(new TicketDataFormat(protection.CreateProtector("Nailcrow.BearerToken")));
}
