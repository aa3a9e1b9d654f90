using System.Text;

namespace Nailcrow.Fuzz;

/// <summary>Makes an input out of others: some changes in a row, each of a kind that parsers stumble over.</summary>
internal sealed class Mutating(Random chance, IReadOnlyList<byte[]> words)
{
    private const int Longest = 16 * 1024;

    private static readonly byte[][] Hard =
    [
        .. new[]
        {
            "0",
            "-1",
            "1e999",
            "9999999999999999999999",
            "2147483648",
            "-9223372036854775808",
            "NaN",
            "null",
            "true",
            "{}",
            "[]",
            "\"\"",
            "\0",
            "\r\n",
            "\uFEFF",
            "\u202E",
            "\uD7FF",
            "é",
            "😀",
            "%s",
            "../",
            "\\u0000",
            "\\ud800",
            "&a",
            "*a",
            "!!str",
            "<<: ",
            "---\n",
            "9999-12-31T23:59:59.9999999Z",
            "0001-01-01T00:00:00Z",
            "1970-01-01T00:00:00+14:00",
            "00000000-0000-0000-0000-000000000000",
        }.Select(Encoding.UTF8.GetBytes),
        [0xff],
        [0xc3],
        [0xed, 0xa0, 0x80],
        [0xf4, 0x90, 0x80, 0x80],
    ];

    public byte[] Made(byte[] from, byte[] other)
    {
        var made = new List<byte>(from);
        for (var changes = 1 + chance.Next(1 << chance.Next(5)); changes > 0; changes--)
            Change(made, other);
        if (made.Count > Longest)
            made.RemoveRange(Longest, made.Count - Longest);
        return [.. made];
    }

    private void Change(List<byte> made, byte[] other)
    {
        var at = chance.Next(made.Count + 1);
        var rest = made.Count - at;
        switch (chance.Next(10))
        {
            case 0 when rest > 0:
                made[at] ^= (byte)(1 << chance.Next(8));
                break;
            case 1 when rest > 0:
                made[at] = (byte)chance.Next(256);
                break;
            case 2 when rest > 0:
                made.RemoveRange(at, 1 + chance.Next(Math.Min(rest, 64)));
                break;
            case 3 when rest > 0:
                made.InsertRange(at, made.GetRange(at, 1 + chance.Next(Math.Min(rest, 64))));
                break;
            case 4 when rest > 0:
                made.RemoveRange(at, rest); // cut off
                break;
            case 5 when other.Length > 0:
                var from = chance.Next(other.Length);
                made.InsertRange(at, other[from..Math.Min(other.Length, from + 1 + chance.Next(256))]);
                break;
            case 6:
                made.InsertRange(at, Hard[chance.Next(Hard.Length)]);
                break;
            case 7 or 8 when words.Count > 0:
                made.InsertRange(at, words[chance.Next(words.Count)]);
                break;
            default:
                made.Insert(at, (byte)chance.Next(32, 127));
                break;
        }
    }
}
