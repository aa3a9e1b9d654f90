using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>What to bring, told before anybody travels.</summary>
public class BringingTests
{
    private const long Eight = 8_000_000_000_000;

    private static readonly DriveModel Old = new("Pellworth P8-K", Eight, "3.5-inch", "sas", "512e", "disk");

    private static Place Here(ApplianceModel? machine = null, long? least = Eight) => new(machine ?? Some.Model, least, Old, null, []);

    private static PartFit Part(string serial, long bytes) =>
        PartFit.Of(new(serial, Old.Id, bytes, "Main stores"), Old with { Bytes = bytes }, Here());

    private static Played Seen()
    {
        var played = Played.Reported();
        played.Does(new SnapshotTaken(Some.Snapshot()));
        return played;
    }

    [Fact]
    public void What_is_needed_names_bay_form_and_bytes_and_says_where_they_are_not_known()
    {
        Bringing.Of(Seen().Ticket, Here(), []).Needed.ShouldStartWith("One drive for bay 2: 3.5-inch");
        Bringing.Of(Seen().Ticket, Here(), []).Needed.ShouldContain("at least 8,000,000,000,000 bytes, 8 TB (7.28 TiB).");
        Bringing
            .Of(Played.Reported().Ticket, Here(least: null), [])
            .Needed.ShouldEndWith("How large is not known; take a snapshot, or read it from the old drive's label.");
    }

    [Fact]
    public void A_larger_part_is_told_with_what_it_changes_and_none_with_that_none_fits()
    {
        var ticket = Seen().Ticket;

        Bringing.Of(ticket, Here(), [Part("SAME0001", Eight)]).Capacity?.Note.ShouldBe("The swap changes no capacity.");
        Bringing.Of(ticket, Here(), [Part("TINY0001", Eight / 2)]).Capacity?.Note.ShouldBe("No part in stock fits.");
        Bringing.Of(Played.Reported().Ticket, Here(), []).Capacity.ShouldBeNull();
    }

    [Theory]
    [InlineData("3=12TB", null)]
    [InlineData("99=12TB", "'99=12TB' names no member of vault; write BAY=SIZE, as 3=12TB, with bays 1, 2, 3, 4, 5, 6.")]
    [InlineData("3", "'3' names no member of vault; write BAY=SIZE, as 3=12TB, with bays 1, 2, 3, 4, 5, 6.")]
    public void A_plan_is_reckoned_through_or_told_what_it_should_say(string plan, string? refusal)
    {
        var planned = Bringing.Planned(Seen().Ticket, plan);

        if (refusal is null)
            planned.ShouldBeOfType<Parsed<Upgrade>.Ok>().Value.Changes.Count.ShouldBe(1);
        else
            planned.ShouldBeOfType<Parsed<Upgrade>.Refused>().Reason.ShouldBe(refusal);
    }

    [Fact]
    public void Nothing_is_planned_on_bays_that_nobody_has_looked_at() =>
        Bringing
            .Planned(Played.Reported().Ticket, "3=12TB")
            .ShouldBeOfType<Parsed<Upgrade>.Refused>()
            .Reason.ShouldBe("How large the members are is not known; take a snapshot first.");

    [Fact]
    public void Tools_are_those_of_the_machine_and_what_its_carriers_bezel_and_cover_ask_for()
    {
        var machine = Some.Model with { Tools = ["Flat bay key"], CarrierScrews = 4, Bezel = Bezel.Key, CoverLimitSeconds = 300 };

        Bringing
            .Of(Seen().Ticket, Here(machine), [])
            .Tools.ShouldBe([
                "Earthing strap",
                "Flat bay key",
                "Screwdriver for 4 carrier screws",
                "Bezel key",
                "A clock: the cover may be off for 5 minutes",
            ]);
    }
}
