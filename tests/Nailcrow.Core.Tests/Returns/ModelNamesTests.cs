using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Returns.Stores;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>One model is counted once, whoever put its parts on the shelf and whatever they called it.</summary>
public class ModelNamesTests
{
    private static readonly string[] List = ["Cindral C8", "Hask H8", "Pellworth P8-K", "Cindral P8-K"];

    [Theory]
    [InlineData("Cindral C8", "Cindral C8")]
    [InlineData("  cindral   c8 ", "Cindral C8")]
    [InlineData("c8", "Cindral C8")]
    [InlineData("P8-K", "P8-K")] // two makers have one
    [InlineData("pellworth p8-k", "Pellworth P8-K")]
    [InlineData("Tollworth T1", "Tollworth T1")]
    [InlineData("8", "8")]
    [InlineData("", "")]
    public void The_list_says_what_a_model_is_called(string named, string counted) => new ModelNames(List).Of(named).ShouldBe(counted);

    [Fact]
    public void What_no_list_has_goes_by_the_first_that_was_said()
    {
        var names = new ModelNames(List);

        names.Of("Tollworth T1").ShouldBe("Tollworth T1");
        names.Of("TOLLWORTH  t1").ShouldBe("Tollworth T1");
        names.Of("T1").ShouldBe("T1");
    }

    [Fact]
    public void What_is_fitted_under_one_name_is_ordered_less_what_lies_free_under_another() =>
        Ordering
            .Of(
                new Dictionary<string, int> { ["cindral c8"] = 20, ["C8"] = 25 },
                new Dictionary<string, int> { ["Cindral C8"] = 2, ["CINDRAL C8"] = 1 },
                new(List)
            )
            .ShouldHaveSingleItem()
            .ShouldBe(new("Cindral C8", 45, 3, 5, "45 fitted in 90 days x 14 days to come = 7, and 1 more, less 3 free"));
}
