using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tests.Appliances;

/// <summary>What a person types of the bays, on top of what was known of them.</summary>
public class SeenByPersonTests
{
    private static readonly DateTimeOffset Now = new(2026, 3, 1, 8, 0, 0, TimeSpan.Zero);

    private static readonly Snapshot Known = new(
        Now.AddDays(-1),
        "redfish",
        [
            new("1", BayRole.Member, DriveHealth.Good, "sda", "OLD1", "Cindral C8", 8_000_000_000_000, "vault", Signs: ["9 pending"]),
            new("2", BayRole.Empty, Name: "sdb"),
        ],
        [new("vault", ArrayLevel.Raid6, 6, ArrayState.Whole)]
    );

    private static Snapshot Seen(params SeenBay[] bays) =>
        new SeenByPerson(bays, []).On(Known, Now) is Parsed<Snapshot>.Ok(var seen) ? seen : throw new InvalidOperationException();

    [Fact]
    public void What_nobody_spoke_of_stays_as_it_was_known_and_the_snapshot_is_the_persons_of_now()
    {
        var seen = Seen(new SeenBay("1", Health: DriveHealth.Faulted));

        (seen.Source, seen.TakenAt).ShouldBe(("person", Now));
        seen.Bays[0].ShouldBe(Known.Bays[0] with { Health = DriveHealth.Faulted });
        seen.Bays[1].ShouldBe(Known.Bays[1]);
    }

    [Fact]
    public void Of_another_drive_in_a_bay_nothing_is_known_but_what_is_said_of_it()
    {
        Seen(new SeenBay("1", " NEW7 ")).Bays[0].ShouldBe(new Bay("1", BayRole.Member, DriveHealth.Unknown, "sda", "NEW7", Array: "vault"));
        Seen(new SeenBay("2", "NEW7")).Bays[1].ShouldBe(new Bay("2", BayRole.Unclaimed, DriveHealth.Unknown, "sdb", "NEW7"));
        Seen(new SeenBay("2", "NEW7", BayRole.Filling, DriveHealth.Good, "vault"))
            .Bays[1]
            .ShouldBe(new Bay("2", BayRole.Filling, DriveHealth.Good, "sdb", "NEW7", Array: "vault"));
        Seen(new SeenBay("1", Array: "")).Bays[0].Array.ShouldBeNull();
    }

    [Theory, InlineData(null, BayRole.Empty), InlineData("", null), InlineData(" ", BayRole.Member)]
    public void A_bay_that_is_seen_empty_keeps_nothing_of_its_drive(string? serial, BayRole? role) =>
        Seen(new SeenBay("1", serial, role)).Bays[0].ShouldBe(new Bay("1", BayRole.Empty, Name: "sda"));

    [Fact]
    public void A_bay_or_an_array_that_there_is_not_is_told_with_those_there_are()
    {
        new SeenByPerson([new("9", "X")], []).On(Known, Now).Is(out _, out var noBay).ShouldBeFalse();
        noBay.ShouldBe("There is no bay '9'; its bays are 1, 2.");
        new SeenByPerson([], [new("attic", ArrayState.Failed)]).On(Known, Now).Is(out _, out var noArray).ShouldBeFalse();
        noArray.ShouldBe("There is no array 'attic' here; accepted: vault.");
    }
}
