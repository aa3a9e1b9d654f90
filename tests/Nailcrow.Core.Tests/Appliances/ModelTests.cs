using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Intake;

namespace Nailcrow.Core.Tests.Appliances;

public class ModelTests
{
    [Theory]
    [InlineData(BayOrder.AlongRows, "1 2 3 / 4 5 ")]
    [InlineData(BayOrder.DownColumns, "1 3 5 / 2 4 ")]
    [InlineData(BayOrder.FromBelow, "4 5  / 1 2 3")]
    [InlineData(BayOrder.FromTheRight, "5 3 1 /  4 2")]
    public void Bays_are_drawn_as_they_are_numbered_with_a_gap_where_there_is_none(BayOrder order, string rows)
    {
        var drawing = ChassisDrawing.Of(Some.Model with { Rows = 2, Columns = 3, BayOrder = order, BayCount = 5 });

        string.Join(" / ", drawing.Drawers[0].Select(r => string.Join(' ', r))).ShouldBe(rows);
    }

    [Fact]
    public void Drawers_and_expansions_are_enclosures_of_their_own()
    {
        var drawing = ChassisDrawing.Of(Some.Model with { Rows = 4, Columns = 1, Drawers = 2, FirstLabel = 0 }, "E1");

        drawing.Drawers.Select(d => string.Join(' ', d.SelectMany(r => r))).ShouldBe(["E1/0 E1/1", "E1/2 E1/3"]);
    }

    [Fact]
    public void A_topology_that_contradicts_itself_is_told_thing_by_thing()
    {
        var data = new ReferenceData(
            [Some.Model with { BayCount = 200 }],
            [],
            [
                new(
                    "FSC-1",
                    "S1",
                    "brackmere-b12",
                    "Corrin",
                    "Rack",
                    Arrays: [new("a", ArrayLevel.Raid50, 7, 8_000, Groups: 2), new("A", ArrayLevel.KPlusM, 300)]
                ),
            ]
        );

        data.Problems(new HashSet<string>(), new HashSet<string> { "Corrin" })
            .ShouldBe([
                "Model 'brackmere-b12' has 200 bays in 3 rows of 4; 1 to 106, and no more than there are places.",
                "The arrays of FSC-1 have 307 members, and it has 200 bays.",
                "FSC-1 has two arrays called a; each has a name of its own.",
                "Array a of FSC-1 is raid50 with 7 members in 2 groups; every group has the same number.",
                "Array a of FSC-1 uses 8000 bytes of each member; sizes are in bytes, and no drive is under 1,000,000,000. Was it meant in GB?",
                "Array A of FSC-1 is k-plus-m and does not say its m; give parity, 1 or more.",
            ]);
    }
}
