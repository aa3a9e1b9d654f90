using System.Security.Cryptography;
using System.Text;

namespace Nailcrow.Core.Tickets.Journal.Canonical;

/// <summary>Each entry's hash covers the one before it, so that a change anywhere shows from there on.</summary>
public static class HashChain
{
    /// <summary>What the first entry of a ticket is chained to.</summary>
    public static readonly string Start = new('0', 64);

    /// <summary>SHA-256 over the previous hash (64 hex digits, ASCII) and the entry's text as it was accepted (UTF-8).</summary>
    public static string Next(string previous, string text) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(previous + text)));

    /// <summary>The first entry, in order of arrival, whose hash or number is not what it must be; null if the chain holds.</summary>
    public static Entry? FirstBroken(IEnumerable<Entry> inOrderOfArrival)
    {
        var (previous, seq) = (Start, 0L);
        foreach (var entry in inOrderOfArrival)
        {
            if (entry.Seq != ++seq || Next(previous, entry.Text) != entry.Hash)
                return entry;
            previous = entry.Hash;
        }
        return null;
    }
}
