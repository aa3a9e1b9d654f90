using Nailcrow.Core.Appliances.Arrays;

namespace Nailcrow.Core.Tests.Appliances;

public class MarginTests
{
    [Theory]
    [InlineData(ArrayLevel.Raid0, "mmmm", 0)]
    [InlineData(ArrayLevel.Raid0, "mmmd", -1)]
    [InlineData(ArrayLevel.Raid1, "mm", 1)]
    [InlineData(ArrayLevel.Raid1, "md", 0)]
    [InlineData(ArrayLevel.Raid1, "mmm", 2)]
    [InlineData(ArrayLevel.Raid5, "mmmm", 1)]
    [InlineData(ArrayLevel.Raid5, "mdmm", 0)]
    [InlineData(ArrayLevel.Raid5, "mdmf", -1)]
    [InlineData(ArrayLevel.Raid6, "mmmmmm", 2)]
    [InlineData(ArrayLevel.Raid6, "mdmmem", 0)]
    [InlineData(ArrayLevel.Raid6, "mdmfem", -1)]
    public void The_margin_is_how_many_more_members_may_go(ArrayLevel level, string roles, int margin)
    {
        var (snapshot, array) = Some.Array(level, roles);

        Margin.Of(snapshot, array).ShouldBe(margin);
    }

    [Theory]
    [InlineData("mmmm", true, 1)]
    [InlineData("mdmm", true, 0)]
    [InlineData("mdmd", true, 0)]
    [InlineData("mdmm", false, 0)]
    [InlineData("ddmm", true, -1)]
    public void Striped_mirrors_are_as_weak_as_their_weakest_mirror(string roles, bool mirrorsKnown, int margin)
    {
        var (snapshot, array) = Some.Array(ArrayLevel.Raid10, roles, mirrorsKnown);

        Margin.Of(snapshot, array).ShouldBe(margin);
    }

    [Fact]
    public void An_array_that_calls_itself_failed_has_no_margin_whatever_its_members_look_like()
    {
        var (snapshot, array) = Some.Array(ArrayLevel.Raid6, "mmmmmm", state: ArrayState.Failed);

        Margin.Of(snapshot, array).ShouldBe(-1);
    }

    [Fact]
    public void A_mirror_that_reads_whole_with_one_member_left_is_not_whole()
    {
        var (snapshot, array) = Some.Array(ArrayLevel.Raid1, "me", state: ArrayState.Whole);

        snapshot.IsWhole(array).ShouldBeFalse();
        Margin.Of(snapshot, array).ShouldBe(0);
    }
}
