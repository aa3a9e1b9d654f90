using System.Globalization;

namespace Nailcrow.Core.Terms;

/// <summary>Bytes as people say them: labels are decimal, screens are often binary, so both are shown.</summary>
public static class ByteSize
{
    /// <summary>The smallest system drive in service holds 8 GB; anything under one is a number in another unit.</summary>
    public const long FewestOfADrive = 1_000_000_000;

    private const long NominalStep = 100_000_000_000;
    private const long NominalFrom = 100_000_000_000;

    /// <summary>
    /// What a drive has whose size was told as its label says it: "8TB" is 15,628,053,168 sectors of 512 bytes. A size that is a whole
    /// number of 100 GB was read from a label; any other was counted. Source of the formula: IDEMA LBA1-03, sectors =
    /// 97,696,368 + 1,953,504 · (GB - 50).
    /// </summary>
    public static long Labelled(long bytes) =>
        bytes >= NominalFrom && bytes % NominalStep == 0 ? (97_696_368 + 1_953_504 * (bytes / 1_000_000_000 - 50)) * 512 : bytes;

    public static string Both(long bytes) =>
        string.Create(CultureInfo.InvariantCulture, $"{bytes / 1e12:0.##} TB ({bytes / Math.Pow(2, 40):0.##} TiB)");

    /// <summary>"8TB", "7.3TiB" or a number of bytes.</summary>
    public static Parsed<long> Parse(string text)
    {
        var (digits, factor) = text.Trim().ToUpperInvariant() switch
        {
            [.. var d, 'T', 'I', 'B'] => (d, Math.Pow(2, 40)),
            [.. var d, 'G', 'I', 'B'] => (d, Math.Pow(2, 30)),
            [.. var d, 'T', 'B'] => (d, 1e12),
            [.. var d, 'G', 'B'] => (d, 1e9),
            var d => (d, 1.0),
        };
        return
            double.TryParse(digits, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && number * factor is > 0 and < 1e18
            ? new Parsed<long>.Ok((long)(number * factor))
            : new Parsed<long>.Refused(
                $"'{text}' is no size; write bytes, or a number with GB, TB, GiB or TiB: 8001563222016, 8TB, 7.3TiB."
            );
    }
}
