using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Stores;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>What is in the hand at the stores' desk, and nobody knows.</summary>
public class ReceivingTests
{
    private static readonly InHand Hand = new("OLD505B2X", new(HolderKind.Depot, "Stores"));

    private static string Asked(InHand hand, params string[] expected) =>
        Receiving
            .Of(hand, PartLine.Of(hand.Serial, []), null, expected, [], Guid.NewGuid(), "sefa", Some.Noon)
            .ShouldBeOfType<Received.Ask>()
            .Says;

    [Theory]
    [InlineData("OLD055B2X is on its way and reads", "OLD055B2X", "P8QUITE777")]
    [InlineData("OLD055B2X and OLD005B2X are on their way and read", "OLD055B2X", "OLD005B2X", "P8QUITE777")]
    public void Every_serial_on_its_way_that_it_may_be_is_named(string said, params string[] expected) =>
        Asked(Hand, expected)
            .ShouldBe($"Nothing is known of OLD505B2X; {said} nearly the same. Read the label again, or say that it is as read.");

    [Fact]
    public void Read_again_and_so_it_is_another_one() =>
        Asked(Hand with { AsRead = true }, "OLD055B2X")
            .ShouldBe("Nothing is known of OLD505B2X. Say its model and size as on its label, and it is taken in.");
}
