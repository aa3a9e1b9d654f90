using System.Text;

namespace Nailcrow.Core.People.SecondFactor;

/// <summary>Bytes as letters and digits that nobody mistakes when typing them off (RFC 4648, section 6), without padding.</summary>
public static class Base32
{
    private const string Alphabet = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";
    private const int Bits = 5;

    public static string Text(ReadOnlySpan<byte> bytes)
    {
        var text = new StringBuilder((bytes.Length * 8 + Bits - 1) / Bits);
        var (waiting, have) = (0, 0);
        foreach (var one in bytes)
        {
            (waiting, have) = (waiting << 8 | one, have + 8);
            for (; have >= Bits; have -= Bits)
                text.Append(Alphabet[waiting >> (have - Bits) & 31]);
            waiting &= (1 << have) - 1;
        }
        return have > 0 ? text.Append(Alphabet[waiting << (Bits - have) & 31]).ToString() : text.ToString();
    }
}
