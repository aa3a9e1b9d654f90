using System.Globalization;

namespace Nailcrow.Core.Appliances.Reaching;

/// <summary>A certificate as a machine shows it.</summary>
/// <param name="Sha256">SHA-256 of the whole certificate: 64 lower-case hexadecimal digits.</param>
public sealed record ShownCertificate(string Sha256, string Subject, DateTimeOffset From, DateTimeOffset Until)
{
    private const int Digits = 64;

    /// <summary>As the machine's own screen writes it, to be compared by eye: "3F:A2:...", 32 pairs.</summary>
    public string Pairs => string.Join(':', Sha256.Chunk(2).Select(pair => new string(pair))).ToUpper(CultureInfo.InvariantCulture);

    /// <summary>A fingerprint however it is written: with colons or spaces, in either case; null where it is none.</summary>
    public static string? Fingerprint(string typed)
    {
        var digits = string.Concat(typed.Where(c => c is not (':' or ' ' or '-'))).ToLowerInvariant();
        return digits.Length == Digits && digits.All(char.IsAsciiHexDigitLower) ? digits : null;
    }
}
