using System.Security.Cryptography;
using System.Text;

namespace Nailcrow.Core.Tickets.Journal.Sealing;

/// <summary>Hashes of RFC 6962, section 2.1, over entries in order of arrival. All hashes are SHA-256, 32 bytes.</summary>
public static class MerkleTree
{
    public const int HashBytes = SHA256.HashSizeInBytes;

    /// <summary>The root over nothing: the hash of the empty string.</summary>
    public static byte[] Empty => SHA256.HashData([]);

    /// <summary>The leaf of an entry: a zero byte, then the entry's hash as its 64 hex digits in ASCII.</summary>
    public static byte[] Leaf(string entryHash)
    {
        var data = new byte[1 + Encoding.UTF8.GetByteCount(entryHash)];
        Encoding.UTF8.GetBytes(entryHash, data.AsSpan(1));
        return SHA256.HashData(data);
    }

    /// <summary>A node over two: a one byte, then both hashes.</summary>
    public static byte[] Node(ReadOnlySpan<byte> left, ReadOnlySpan<byte> right)
    {
        Span<byte> data = stackalloc byte[1 + 2 * HashBytes];
        data[0] = 1;
        left.CopyTo(data[1..]);
        right.CopyTo(data[(1 + HashBytes)..]);
        return SHA256.HashData(data);
    }

    /// <summary>
    /// The audit path (section 2.1.1) of one leaf, from its sibling up. Leaves are asked for once each and in order, so that
    /// a million of them need not be held.
    /// </summary>
    /// <param name="leaf">Its index, from 0, below <paramref name="count"/>.</param>
    /// <param name="next">The next leaf's hash.</param>
    public static IReadOnlyList<byte[]> Path(long leaf, long count, Func<byte[]> next)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(leaf);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(leaf, count);
        var path = new List<byte[]>();
        Walk(leaf, count);
        return path;

        void Walk(long at, long of)
        {
            if (of == 1)
            {
                next();
                return;
            }
            var left = LargestPowerBelow(of);
            if (at < left)
            {
                Walk(at, left);
                path.Add(Root(of - left, next));
            }
            else
            {
                var sibling = Root(left, next);
                Walk(at - left, of - left);
                path.Add(sibling);
            }
        }
    }

    /// <summary>The root over the next leaves.</summary>
    public static byte[] Root(long count, Func<byte[]> next)
    {
        var frontier = new Frontier();
        for (var i = 0L; i < count; i++)
            frontier.Add(next());
        return frontier.Root();
    }

    /// <summary>The root that a leaf and its path lead to.</summary>
    public static byte[] RootFrom(byte[] leafHash, long leaf, long count, IReadOnlyList<byte[]> path)
    {
        // RFC 9162, section 2.1.3.2, in the form for a whole tree.
        var (node, fn, sn) = (leafHash, leaf, count - 1);
        foreach (var sibling in path)
        {
            if ((fn & 1) == 1 || fn == sn)
            {
                node = Node(sibling, node);
                while ((fn & 1) == 0 && fn != 0)
                    (fn, sn) = (fn >> 1, sn >> 1);
            }
            else
                node = Node(node, sibling);
            (fn, sn) = (fn >> 1, sn >> 1);
        }
        return node;
    }

    private static long LargestPowerBelow(long count) => (long)System.Numerics.BitOperations.RoundUpToPowerOf2((ulong)count) >> 1;
}
