using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Fitting;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>Of parts that fit alike the one is proposed that a person would take who knew where they lie and how long they last.</summary>
public class WeighingTests
{
    private const long TB8 = 8_001_563_222_016;

    private static readonly DateTimeOffset Noon = new(2026, 3, 2, 12, 0, 0, TimeSpan.Zero);

    private static readonly DriveModel Sold = new("Pellworth P8-K", TB8, "3.5-inch", "sas", "512e", "disk");

    private static readonly Weighing Known = new(
        Noon,
        new Dictionary<string, double>
        {
            ["Hill"] = 10,
            ["Dale"] = 240,
            ["Corrin"] = 0,
        },
        NeededBy: Noon.AddHours(3),
        Engineer: "ilka"
    );

    private static StockPart Part(string serial, string depot = "Hill", long bytes = TB8, int? hours = null) =>
        new(serial, Sold.Id, bytes, depot, hours);

    private static KnownWarranty Until(int year, string? source = null) => new("X", null, new(new(year, 6, 1)), source, Noon.AddDays(-10));

    private static IEnumerable<string> Ranked(Weighing weighed, params StockPart[] parts)
    {
        var place = new Place(Some.Model, TB8, null, null, [], weighed);
        return PartFit.Ranked(parts.Select(p => PartFit.Of(p, Sold, place)), weighed).Select(f => f.Part.Serial);
    }

    [Fact]
    public void The_nearest_comes_first_the_engineers_own_van_is_nearest_and_where_nobody_knows_how_far_comes_last() =>
        Ranked(
                Known with
                {
                    NeededBy = null,
                },
                Part("FAR1", "Dale"),
                Part("WHO1", "Cellar"),
                Part("NEAR1"),
                Part("VAN1", "van of ilka"),
                Part("VAN2", "van of tamsel")
            )
            .ShouldBe(["VAN1", "NEAR1", "FAR1", "VAN2", "WHO1"]);

    [Fact]
    public void One_that_would_come_too_late_comes_after_a_larger_one_that_comes_in_time()
    {
        var (far, near) = (Part("FAR1", "Dale"), Part("NEAR1", bytes: 2 * TB8));

        Ranked(Known, far, near).ShouldBe(["NEAR1", "FAR1"]);
        Ranked(Known with { NeededBy = Noon.AddHours(5) }, far, near).ShouldBe(["FAR1", "NEAR1"]);
        Known.Notes(far).ShouldBe(["240 km from the site: too late, it is needed by 2026-03-02 15:00 UTC."]);
        Known.Notes(near).ShouldBe(["10 km from the site."]);
    }

    [Fact]
    public void A_drive_goes_in_with_warranty_left_a_new_one_before_one_that_has_run_and_the_oldest_of_equal_ones()
    {
        var soonOver = Part("SOON1") with { Warranty = Until(2026) };
        var old = Part("OLD1") with { Since = Noon.AddDays(-500), Warranty = Until(2029) };
        var fresh = Part("FRESH1") with { Since = Noon.AddDays(-5), Warranty = Until(2031) };

        Ranked(Known, soonOver, Part("RAN1", hours: 900) with { Since = Noon.AddDays(-900) }, fresh, old)
            .ShouldBe(["OLD1", "FRESH1", "RAN1", "SOON1"]);
    }

    [Fact]
    public void What_is_known_of_a_part_is_told_and_nobody_has_to_overrule_it()
    {
        var part = Part("LAIN1", "Corrin") with { Since = Noon.AddDays(-400), Warranty = Until(2026, "Pellworth") };
        var fit = PartFit.Of(part, Sold, new(Some.Model, TB8, null, null, [], Known));

        fit.Fit.ShouldBe(Fit.Fits);
        fit.Notes.ShouldBe(["It lies at the site.", "Under warranty until 2026-06-01.", "It has lain there since 2025-01-26."]);
        PartFit.Of(part with { Bytes = 1 }, Sold, new(Some.Model, TB8, null, null, [], Known)).Notes.ShouldBeEmpty(); // why it does not fit is enough
    }

    [Theory]
    [InlineData("P8-K", "under warranty until 2027-01-01, by our list of 2026-02-20 for all Pellworth P8-K")]
    [InlineData("pellworth p8-k", "under warranty until 2027-01-01, by our list of 2026-02-20 for all Pellworth P8-K")]
    [InlineData("8-K", null)]
    [InlineData("", null)]
    [InlineData(null, null)]
    public void A_models_warranty_is_that_of_every_drive_of_it_however_a_machine_names_it(string? named, string? told) =>
        KnownWarranty
            .Of([new(null, Sold.Id, new(new(2027, 1, 1)), null, Noon.AddDays(-10))], "ABC12345", named)
            ?.Told(new(2026, 3, 2))
            .ShouldBe(told);

    [Fact]
    public void What_is_said_of_one_drive_counts_before_what_is_said_of_its_model()
    {
        KnownWarranty[] known =
        [
            new(null, Sold.Id, new(new(2027, 1, 1)), null, Noon),
            new("ABC12345", null, new(new(2025, 1, 1)), "Pellworth", Noon),
        ];

        KnownWarranty
            .Of(known, "ABC12345", Sold.Id)!
            .Told(new(2026, 3, 2))
            .ShouldBe("its warranty ended on 2025-01-01, as Pellworth answered on 2026-03-02");
        KnownWarranty.Of(known, "ABC12346", Sold.Id)!.Warranty.Until.Year.ShouldBe(2027);
    }
}
