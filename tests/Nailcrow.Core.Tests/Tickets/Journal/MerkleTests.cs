using System.Security.Cryptography;
using CsCheck;
using Nailcrow.Core.Tickets.Journal.Sealing;

namespace Nailcrow.Core.Tests.Tickets.Journal;

public class MerkleTests
{
    private static byte[][] Leaves(int count) => [.. Enumerable.Range(0, count).Select(i => MerkleTree.Leaf($"{i:x64}"))];

    /// <summary>RFC 6962, section 2.1, word by word: shares nothing with what it checks.</summary>
    private static byte[] Mth(byte[][] d)
    {
        if (d.Length == 1)
            return d[0];
        var k = 1;
        while (k * 2 < d.Length)
            k *= 2;
        return SHA256.HashData([1, .. Mth(d[..k]), .. Mth(d[k..])]);
    }

    private static Func<byte[]> Each(byte[][] leaves)
    {
        var at = 0;
        return () => leaves[at++];
    }

    [Fact]
    public void A_growing_tree_has_the_root_that_the_standard_gives_at_every_size() =>
        Gen.Int[1, 300].Sample(count => MerkleTree.Root(count, Each(Leaves(count))).ShouldBe(Mth(Leaves(count))), iter: 100);

    [Fact]
    public void A_leafs_path_leads_to_the_root_and_no_other_leafs_does() =>
        Gen.Select(Gen.Int[1, 200], Gen.Int[0, 199])
            .Where(t => t.Item2 < t.Item1)
            .Sample(
                (count, leaf) =>
                {
                    var leaves = Leaves(count);
                    var path = MerkleTree.Path(leaf, count, Each(leaves));

                    MerkleTree.RootFrom(leaves[leaf], leaf, count, path).ShouldBe(Mth(leaves));
                    if (count > 1)
                        MerkleTree.RootFrom(leaves[(leaf + 1) % count], leaf, count, path).ShouldNotBe(Mth(leaves));
                },
                iter: 200
            );

    [Fact]
    public void Whole_blocks_and_the_rest_make_the_tree_that_single_leaves_make() =>
        Gen.Int[0, 3 * Seal.BlockEntries + 5]
            .Sample(
                count =>
                {
                    var whole = new SealDraft(null, 0);
                    for (var i = 0; i < count; i++)
                        whole.Add(i + 1, 1001, i + 1, $"{i:x64}");

                    whole
                        .Finish(1, Some.Noon, "", SealedLedger.Empty, SealedLog.Empty)
                        .Root.ShouldBe(Convert.ToHexStringLower(count == 0 ? MerkleTree.Empty : Mth(Leaves(count))));
                },
                iter: 20
            );
}
