using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;

namespace Nailcrow.Core.Tests.Appliances;

public class SnapshotTests
{
    [Fact]
    public void A_swap_that_changed_only_its_bay_is_told_as_one_other_drive()
    {
        var after = Some.Snapshot(state: ArrayState.Whole, badRole: BayRole.Member, badSerial: Some.New);

        SnapshotComparison
            .Between(Some.Snapshot(), after)
            .ShouldBe([new BayChange("2", true, $"Bay 2 held {Some.Bad} and now holds {Some.New}.")]);
        SnapshotComparison.OtherThanOnly(["2"], new HashSet<string>(), Some.Snapshot(), after).ShouldBeNull();
    }

    [Fact]
    public void A_second_bay_that_changed_as_well_is_named()
    {
        var after = Some.Snapshot(badRole: BayRole.Member, badSerial: Some.New);
        after = after with { Bays = [.. after.Bays.Select(b => b.Label == "4" ? b with { Serial = "P8OTHER99" } : b)] };

        SnapshotComparison
            .OtherThanOnly(["2"], new HashSet<string>(), Some.Snapshot(), after)
            .ShouldBe("Not only bay 2 changed: Bay 4 held P8GOOD0004 and now holds P8OTHER99.");
    }

    [Fact]
    public void A_snapshot_that_cannot_be_is_refused_with_each_reason()
    {
        var snapshot = new Snapshot(
            Some.Noon,
            "person",
            [
                new("1", BayRole.Empty, Serial: "AAAA1"),
                new("1", BayRole.Member, Serial: "BBBB2", Array: "attic"),
                new("3", BayRole.Spare, Serial: "bbbb2"),
            ],
            [new("vault", ArrayLevel.Raid6, 3, ArrayState.Whole)]
        );

        SnapshotProblems
            .In(snapshot)
            .ShouldBe([
                "Bay 1 is listed twice; each bay is listed once.",
                "Serial BBBB2 is in two bays; one drive is in one bay.",
                "Bay 1 is called empty and holds AAAA1; give it another role or no serial.",
                "Bay 1 belongs to array 'attic', which the snapshot does not list.",
                "Array vault is raid6 with 3 members; that level has at least 4.",
            ]);
    }

    [Theory, InlineData(BayOrder.DownColumns, "1 4 7 10|2 5 8 11|3 6 9 12"), InlineData(BayOrder.AlongRows, "1 2 3 4|5 6 7 8|9 10 11 12")]
    public void Labels_run_as_they_are_printed(BayOrder order, string expected)
    {
        var model = Some.Model with { BayOrder = order };

        var rows = Enumerable.Range(0, 3).Select(r => string.Join(' ', Enumerable.Range(0, 4).Select(c => model.LabelAt(r, c))));

        string.Join('|', rows).ShouldBe(expected);
    }
}
