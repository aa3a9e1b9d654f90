using System.Buffers.Binary;
using System.Diagnostics.CodeAnalysis;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;

namespace Nailcrow.Core.People.SecondFactor;

/// <summary>
/// Six digits that a device and we reckon alike from a shared key and the time: RFC 6238 over RFC 4226, with HMAC-SHA-1, steps of 30 s
/// since 1970 and 6 digits, which is what every device that shows such codes takes.
/// </summary>
public static class OneTimeCode
{
    /// <summary>Bytes of a key: the 160 bits that RFC 4226, section 4, asks for.</summary>
    public const int KeyBytes = 20;

    private const int StepSeconds = 30;

    // A device's clock may be out by half a minute, and typing takes its time (RFC 6238, section 5.2: one step either way).
    private const int StepsEitherWay = 1;

    /// <summary>What a device would show.</summary>
    public static string At(ReadOnlySpan<byte> key, DateTimeOffset at) => OfStep(key, Step(at));

    /// <summary>Which step's code this is, of those near now that come after the last one that was taken; null where it is none of them.</summary>
    /// <param name="lastStep">A code that was used once opens nothing again (RFC 6238, section 5.2).</param>
    public static long? Taken(ReadOnlySpan<byte> key, string typed, DateTimeOffset now, long lastStep)
    {
        var digits = Encoding.ASCII.GetBytes(string.Concat(typed.Where(c => !char.IsWhiteSpace(c))));
        long? taken = null;
        for (var step = Step(now) - StepsEitherWay; step <= Step(now) + StepsEitherWay; step++)
            // Each is held against it, right or not: how long it takes says nothing.
            if (CryptographicOperations.FixedTimeEquals(Encoding.ASCII.GetBytes(OfStep(key, step)), digits) && step > lastStep)
                taken ??= step;
        return taken;
    }

    /// <summary>What a device reads from a picture to take over the key: the key URI that such devices have agreed on.</summary>
    public static string KeyUri(ReadOnlySpan<byte> key, string issuer, string name) =>
        $"otpauth://totp/{Uri.EscapeDataString(issuer)}:{Uri.EscapeDataString(name)}?secret={Base32.Text(key)}&issuer={Uri.EscapeDataString(issuer)}";

    private static long Step(DateTimeOffset at) => at.ToUnixTimeSeconds() / StepSeconds;

    [SuppressMessage("Security", "CA5350", Justification = "RFC 6238's own; as an HMAC it stands, and devices take no other.")]
    private static string OfStep(ReadOnlySpan<byte> key, long step)
    {
        Span<byte> counter = stackalloc byte[8];
        BinaryPrimitives.WriteInt64BigEndian(counter, step);
        Span<byte> mac = stackalloc byte[HMACSHA1.HashSizeInBytes];
        HMACSHA1.HashData(key, counter, mac);
        var at = mac[^1] & 0xf; // RFC 4226, section 5.3: the last four bits say where the number begins
        var number = BinaryPrimitives.ReadInt32BigEndian(mac[at..]) & 0x7fff_ffff;
        return (number % 1_000_000).ToString("D6", CultureInfo.InvariantCulture);
    }
}
