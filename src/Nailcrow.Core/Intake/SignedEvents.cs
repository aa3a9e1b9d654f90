using System.Globalization;
using System.Security.Cryptography;
using System.Text;

namespace Nailcrow.Core.Intake;

/// <summary>
/// Whether an event comes from who it says. As the open Standard Webhooks specification has it: the headers webhook-id,
/// webhook-timestamp and webhook-signature, the last being "v1," and the base64 of HMAC-SHA256 over "id.timestamp.body".
/// </summary>
public static class SignedEvents
{
    // Long enough for a slow way and a clock that is set by hand; a copy that is sent later than that is refused.
    private static readonly TimeSpan Tolerance = TimeSpan.FromMinutes(5);

    /// <returns>Null where it is good, else why not.</returns>
    public static string? Problem(
        string? id,
        string? timestamp,
        string? signatures,
        ReadOnlySpan<byte> body,
        string secret,
        DateTimeOffset now
    )
    {
        if (string.IsNullOrEmpty(id) || string.IsNullOrEmpty(timestamp) || string.IsNullOrEmpty(signatures))
            return "A signed event has the headers webhook-id, webhook-timestamp and webhook-signature.";
        if (!long.TryParse(timestamp, NumberStyles.None, CultureInfo.InvariantCulture, out var seconds) || seconds > 253_402_300_799)
            return $"webhook-timestamp is '{timestamp}'; it is whole seconds since 1970.";
        if ((now - DateTimeOffset.FromUnixTimeSeconds(seconds)).Duration() > Tolerance)
            return $"webhook-timestamp is {DateTimeOffset.FromUnixTimeSeconds(seconds):u}, more than "
                + $"{Tolerance.TotalMinutes:0} minutes from now. Sent again, or a clock that is wrong?";
        var expected = Encoding.ASCII.GetBytes(Sign(id, timestamp, body, secret));
        return signatures.Split(' ').Any(s => CryptographicOperations.FixedTimeEquals(Encoding.ASCII.GetBytes(s), expected))
            ? null
            : "The signature is not this sender's over this body.";
    }

    public static string Sign(string id, string timestamp, ReadOnlySpan<byte> body, string secret)
    {
        byte[] signed = [.. Encoding.UTF8.GetBytes($"{id}.{timestamp}."), .. body];
        return "v1," + Convert.ToBase64String(HMACSHA256.HashData(Encoding.UTF8.GetBytes(secret), signed));
    }

    /// <summary>A secret nobody can guess, 32 random bytes as base64.</summary>
    public static string NewSecret() => Convert.ToBase64String(RandomNumberGenerator.GetBytes(32));

    /// <summary>One id for one event: made of what the sender says it is, so that a repeat has the same.</summary>
    public static Guid IdOf(string sender, string eventId)
    {
        Span<byte> hash = stackalloc byte[32];
        SHA256.HashData(Encoding.UTF8.GetBytes($"{sender}\n{eventId}"), hash);
        return new Guid(hash[..16], bigEndian: true);
    }
}
