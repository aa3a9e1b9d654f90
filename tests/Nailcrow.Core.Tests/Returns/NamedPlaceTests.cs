using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Stores;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>Where stores puts a part is a place that there is, or one that somebody says is new.</summary>
public class NamedPlaceTests
{
    private static readonly string[] Depots = ["Fenwright main stores", "Corrin", "Depot 1", "Hall 12"];
    private static readonly string[] Drivers = ["tamsel", "ilka"];

    private static NamedPlace Of(HolderKind kind, string name, bool isNew = false) =>
        NamedPlace.Of(new(kind, name, kind == HolderKind.Depot ? "B2" : null), Depots, Drivers, isNew);

    [Theory]
    [InlineData("Corrin", "Corrin")]
    [InlineData("  corrin ", "Corrin")]
    [InlineData("fenwright  Main Stores", "Fenwright main stores")]
    [InlineData("Depot 2", "Depot 2")]
    [InlineData("Depot 11", "Depot 11")]
    [InlineData("Hall 21", "Hall 21")]
    [InlineData("Mill", "Mill")]
    public void A_depot_goes_by_the_name_it_has_and_one_that_is_like_no_other_is_new(string said, string meant) =>
        Of(HolderKind.Depot, said).ShouldBe(new NamedPlace.There(new(HolderKind.Depot, meant, "B2")));

    [Theory]
    [InlineData("Corin", "Corrin")]
    [InlineData("Corrni", "Corrin")]
    [InlineData("Deopt 1", "Depot 1")]
    [InlineData("Fenwrihgt main store", "Fenwright main stores")]
    public void A_depot_that_is_only_another_ones_misspelt_name_is_asked_about_until_it_is_said_to_be_new(string said, string near)
    {
        Of(HolderKind.Depot, said)
            .ShouldBe(new NamedPlace.Near(near, $"Nothing lies in a depot '{said}', and there is {near}. Say which it is."));
        Of(HolderKind.Depot, said, isNew: true).ShouldBe(new NamedPlace.There(new(HolderKind.Depot, said, "B2")));
    }

    [Theory, InlineData(false), InlineData(true)]
    public void Nobody_has_a_van_but_an_engineer(bool isNew)
    {
        Of(HolderKind.Van, " Ilka ", isNew).ShouldBe(new NamedPlace.There(new(HolderKind.Van, "ilka")));
        Of(HolderKind.Van, "ilca", isNew)
            .ShouldBe(new NamedPlace.Nobodys("'ilca' is no engineer here, and has no van; engineers: ilka, tamsel."));
        NamedPlace
            .Of(new(HolderKind.Van, "ilka"), Depots, [], isNew)
            .ShouldBe(new NamedPlace.Nobodys("'ilka' is no engineer here, and has no van; there is no engineer yet."));
    }
}
