using System.Buffers.Binary;
using System.Security.Cryptography;

namespace Nailcrow.Running;

/// <summary>Stands for the telephone that shows one-time codes: written from RFC 6238 alone, it shares nothing with the service.</summary>
public sealed class CodeDevice
{
    private const string Letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";

    private readonly byte[] _key;

    /// <param name="key">As it is typed in, in base 32.</param>
    public CodeDevice(string key)
    {
        var bits = string.Concat(
            key.Where(char.IsLetterOrDigit).Select(c => Convert.ToString(Letters.IndexOf(c, StringComparison.Ordinal), 2).PadLeft(5, '0'))
        );
        _key = [.. Enumerable.Range(0, bits.Length / 8).Select(at => Convert.ToByte(bits.Substring(at * 8, 8), 2))];
    }

    public string Shows(DateTimeOffset at)
    {
        var counter = new byte[8];
        BinaryPrimitives.WriteUInt64BigEndian(counter, (ulong)(at.ToUnixTimeSeconds() / 30));
#pragma warning disable CA5350 // what such devices reckon with
        var mac = HMACSHA1.HashData(_key, counter);
#pragma warning restore CA5350
        var from = mac[19] % 16;
        var number = (mac[from] % 128 * 0x1000000L) + mac[from + 1] * 0x10000L + mac[from + 2] * 0x100L + mac[from + 3];
        return $"{number % 1_000_000:000000}";
    }
}
