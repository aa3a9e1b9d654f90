using Nailcrow.Core.People;
using Nailcrow.Core.People.SigningIn;

namespace Nailcrow.Core.Tests.SigningIn;

/// <summary>What a provider of sign-ins says of somebody, as it is taken here.</summary>
public sealed class ToldElsewhereTests
{
    [Theory]
    [InlineData("ilka", "ilka")]
    [InlineData("Ilka@fenwright.example", "ilka")]
    [InlineData("@", "")]
    [InlineData(null, "")]
    public void The_name_to_sign_in_with_is_what_stands_before_an_addresss_sign(string? there, string here) =>
        Told(there, null).NameHere.ShouldBe(here);

    [Theory]
    [InlineData("Ilka Moor", "Ilka Moor")]
    [InlineData("  Ilka Moor ", "Ilka Moor")]
    [InlineData(null, "ilka")]
    [InlineData("", "ilka")]
    [InlineData("Ilka\u202e", "ilka")]
    [InlineData("Nailcrow", "ilka")]
    public void A_full_name_that_is_none_here_is_the_name_to_sign_in_with(string? there, string here) =>
        Told("ilka", there).FullNameHere.ShouldBe(here);

    [Fact]
    public void Groups_are_roles_as_was_set_whatever_their_case_and_others_mean_nothing()
    {
        var roles = new RolesElsewhere(new Dictionary<string, Role> { ["tide-crew"] = Role.Engineer, ["Office"] = Role.Dispatcher });

        roles.Of(["choir", "OFFICE", "tide-crew", "Tide-Crew"]).ShouldBe([Role.Engineer, Role.Dispatcher], ignoreOrder: true);
        roles.Of(["engineer", "admin"]).ShouldBeEmpty(); // where groups are named, nothing else is one
        roles.Of([]).ShouldBeEmpty();
    }

    [Fact]
    public void Where_no_group_is_named_the_roles_own_names_are() =>
        new RolesElsewhere(new Dictionary<string, Role>())
            .Of(["admin", "Stores", "choir"])
            .ShouldBe([Role.Stores, Role.Admin], ignoreOrder: true);

    private static ToldElsewhere Told(string? name, string? fullName) =>
        new("https://there.example", "There", "1", name, fullName, null, []);
}
