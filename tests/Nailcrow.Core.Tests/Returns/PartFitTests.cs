using Nailcrow.Core.Returns.Fitting;

namespace Nailcrow.Core.Tests.Returns;

public class PartFitTests
{
    private const long Needed = 8_001_563_222_016;

    private static readonly DriveModel Old = new("Pellworth P8-K", Needed, "3.5-inch", "sas", "512e", "disk", Rpm: 7200);

    private static readonly Place Here = new(
        Some.Model with
        {
            Interfaces = ["sas"],
            SectorFormats = ["512e"],
            Media = ["disk"],
        },
        Needed,
        Old,
        20_000,
        [new("brackmere-b12", "Pellworth P8-K"), new("brackmere-b12", "Cindral C8-Q", "it drops out under load.")]
    );

    private static PartFit Of(
        DriveModel? model = null,
        long bytes = Needed,
        int? hours = null,
        string? usedIn = null,
        bool wiped = false
    ) => PartFit.Of(new("C8NEW", (model ?? Old).Id, bytes, "Main stores", hours, usedIn, wiped), model ?? Old, Here);

    [Fact]
    public void A_qualified_drive_that_is_large_enough_fits() => Of().Fit.ShouldBe(Fit.Fits);

    [Theory]
    [InlineData(Needed - 512, Fit.DoesNotFit)]
    [InlineData(Needed, Fit.Fits)]
    public void Nominally_equal_drives_are_compared_by_their_bytes(long bytes, Fit fit) => Of(bytes: bytes).Fit.ShouldBe(fit);

    public static TheoryData<DriveModel, string> Blocking =>
        new()
        {
            { Old with { FormFactor = "2.5-inch" }, "It is 2.5-inch; the carrier takes 3.5-inch." },
            { Old with { Interface = "sata" }, "Its interface is sata; the bays take sas." },
            { Old with { SectorFormat = "4kn" }, "Its sectors are 4kn; the arrays take 512e." },
            { Old with { Media = "flash" }, "It is flash; the arrays take disk." },
        };

    [Theory, MemberData(nameof(Blocking))]
    public void What_cannot_work_is_no_matter_of_opinion(DriveModel model, string why) => Of(model).Blocks.ShouldBe([why]);

    public static TheoryData<DriveModel, string> Warning =>
        new()
        {
            { Old with { Id = "Hask H8" }, "Hask H8 is not on the maker's list for Brackmere B12." },
            { Old with { Shingled = true }, "Its tracks overlap (shingled): a rebuild onto it can take many times as long." },
            { Old with { Duty = "desktop" }, "It was made for desktop duty, not for arrays." },
            { Old with { Rpm = 5400 }, "It turns at 5400; the drive it replaces at 7200. The array is as slow as its slowest member." },
        };

    [Theory, MemberData(nameof(Warning))]
    public void What_may_be_overruled_is_said(DriveModel model, string why) =>
        (Of(model).Fit, string.Join(" ", Of(model).Warns)).ShouldBe((Fit.FitsWithWarnings, why));

    [Fact]
    public void What_is_known_not_to_work_is_said_with_what_happens_and_offered_last_of_all_that_can_be_taken()
    {
        var (never, unlisted) = (Of(Old with { Id = "Cindral C8-Q" }), Of(Old with { Id = "Hask H8", Shingled = true }));

        never.Warns.ShouldBe(["Cindral C8-Q is known not to work in Brackmere B12: it drops out under load."]);
        unlisted.Warns.Count.ShouldBe(2);
        PartFit
            .Ranked([never, unlisted, Of()], Weighing.Nothing)
            .Select(f => f.Model!.Id)
            .ShouldBe(["Pellworth P8-K", "Hask H8", "Cindral C8-Q"]);
        var onlyBad = Here with { Known = [new("brackmere-b12", "Cindral C8-Q", "it drops out under load.")] };
        PartFit.Of(new("C8NEW", "Hask H8", Needed, "Main stores"), Old with { Id = "Hask H8" }, onlyBad).Fit.ShouldBe(Fit.Fits);
    }

    /// <summary>A list says it by another name than the label: maker and model, the model alone, small letters.</summary>
    [Theory]
    [InlineData("Cindral C8-Q", "Cindral C8-Q")]
    [InlineData("Cindral C8-Q", "C8-Q")]
    [InlineData("Cindral C8-Q", "cindral c8-q")]
    [InlineData("C8-Q", "Cindral C8-Q")]
    [InlineData("Cindral  c8-q", "Cindral C8-Q ")]
    public void What_is_known_not_to_work_is_said_by_whatever_name_it_goes(string part, string list)
    {
        var place = Here with { Known = [new("brackmere-b12", list, "it drops out under load.")] };

        foreach (var model in new[] { Old with { Id = part }, null })
        {
            var fit = PartFit.Of(new("C8NEW", part, Needed, "Main stores"), model, place);
            fit.NeverWorked.ShouldBeTrue();
            fit.ToOverrule.ShouldBe([$"{part} is known not to work in Brackmere B12: it drops out under load."]);
        }
    }

    /// <summary>Who types a model that no list has answers for its form; not for what its bytes and its history say.</summary>
    [Fact]
    public void A_part_of_no_listed_model_has_to_be_large_enough_and_wiped_all_the_same()
    {
        PartFit.Of(new("C8NEW", "Pellworth P99", Needed, "Main stores"), null, Here).ToOverrule.ShouldBeEmpty();
        PartFit.Of(new("C8NEW", "Pellworth P99", 4_000_000_000_000, "Main stores"), null, Here).Fit.ShouldBe(Fit.DoesNotFit);
        PartFit.Of(new("C8NEW", "Pellworth P99", Needed, "Main stores", UsedIn: "FSC-9"), null, Here).Fit.ShouldBe(Fit.DoesNotFit);
        PartFit
            .Of(new("C8NEW", "Pellworth P99", Needed, "Main stores", 30_000), null, Here)
            .ToOverrule.ShouldBe(["It has run 30,000 hours already."]);
    }

    [Theory, InlineData(9_000, Fit.Fits), InlineData(30_000, Fit.FitsWithWarnings)]
    public void Many_hours_are_a_warning(int hours, Fit fit) => Of(hours: hours).Fit.ShouldBe(fit);

    [Fact]
    public void A_drive_from_another_machine_has_to_be_wiped_first()
    {
        Of(usedIn: "FSC-9")
            .Blocks.ShouldBe([
                "It comes out of FSC-9 and no wipe is on record: left-over array data can confuse or take over this machine. Wipe it and record that.",
            ]);
        Of(usedIn: "FSC-9", wiped: true).Fit.ShouldBe(Fit.Fits);
    }

    [Fact]
    public void What_fits_comes_before_what_warns_and_the_smallest_that_will_do_before_the_rest() =>
        PartFit
            .Ranked([Of(bytes: Needed * 2), Of(Old with { Shingled = true }), Of(bytes: 1), Of()], Weighing.Nothing)
            .Select(f => (f.Fit, f.Part.Bytes))
            .ShouldBe([(Fit.Fits, Needed), (Fit.Fits, Needed * 2), (Fit.FitsWithWarnings, Needed), (Fit.DoesNotFit, 1L)]);
}
