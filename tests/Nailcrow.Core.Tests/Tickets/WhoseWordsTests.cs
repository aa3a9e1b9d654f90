using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Gates;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tests.Procedures;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Core.Tests.Tickets;

/// <summary>Of which drive, which bay and which array something is said, also when hands were quicker than the pen.</summary>
public class WhoseWordsTests
{
    private static Snapshot After(Snapshot before, string bay, Bay? now) =>
        before with
        {
            Bays = [.. before.Bays.Select(b => b.Label == bay ? now ?? new Bay(bay, BayRole.Empty, Name: b.Name) : b)],
        };

    private static Bay Member(string label, string serial, long? bytes = 8_000_000_000_000, string array = "vault") =>
        new(label, BayRole.Member, DriveHealth.Good, Serial: serial, Bytes: bytes, Array: array);

    [Fact]
    public void What_was_said_of_the_drive_that_came_out_is_not_held_against_the_one_that_went_in()
    {
        var played = Played.Reported();
        played.Does(new EvidenceSeen(EvidenceKind.SelfTest, "log", "read failure", "2")); // before anybody knew which drive that is
        played.Does(new SnapshotTaken(Some.Snapshot()));
        played.Does(new EvidenceSeen(EvidenceKind.LogLines, "log", "time-outs", "2", Count: 900));
        played.Ticket.Evidence.Select(e => e.Drive).ShouldBe([Some.Bad, Some.Bad]);

        played.Arrives(new DrivePulled("2", Some.Bad));
        played.Arrives(new DriveInserted("2", Some.New));
        played.Does(new SnapshotTaken(After(Some.Snapshot(), "2", Member("2", Some.New))));

        Danger.Of(played.Ticket).Suspects.ShouldBeEmpty();
        played.Does(new EvidenceSeen(EvidenceKind.SelfTest, "log", "read failure", "2"));
        Danger.Of(played.Ticket).Suspects.ShouldHaveSingleItem().Serial.ShouldBe(Some.New); // that one is about the new drive
    }

    [Fact]
    public void A_look_between_the_pull_and_the_scan_does_not_become_the_one_from_before()
    {
        var played = Played.At("serial-out"); // the drive is in the hand, and not on record yet
        var before = played.Ticket.Before;

        played.Does(new SnapshotTaken(After(Some.Snapshot(), "2", null)));

        played.Ticket.Before.ShouldBe(before);
        played.Answers(Some.Bad);
        played.Ticket.Before?.Holding(Some.Bad).ShouldNotBeNull();
    }

    [Fact]
    public void After_a_wrong_drive_the_way_back_opens_although_somebody_looked_while_it_was_out()
    {
        var played = Played.At("serial-out");
        played.Does(new SnapshotTaken(After(Some.Snapshot(), "3", null))); // the service saw bay 3 empty
        played.Does(new EvidenceSeen(EvidenceKind.Alert, "redfish", "drive removed", "3"));

        played.Answers("P8GOOD0003");

        // What the machine said of bay 3 was the hand that pulled it.
        played.Ticket.Evidence[^1].Step.ShouldNotBeNull();
        for (var asked = 0; played.Step is { Gate: not GateFact.AsBefore } step && asked < 10; asked++)
            played.GoesOn(step);
        played.PassRefusal().ShouldBe("There is no snapshot since the drive went back; take one.");
        played.Does(new SnapshotTaken(Some.Snapshot()));
        played.Passes();
    }

    private static string? Unmet(Played played, GateFact fact) =>
        played.Ticket is { Run: { } run, Sheet.Steps: [var first, ..] }
            ? GateCheck.Unmet(played.Ticket, run, first with { Kind = StepKind.Gate, Gate = fact }, played.Now)
            : throw new InvalidOperationException("It has no sheet yet.");

    private static Played Growing()
    {
        var played = new Played();
        played.Does(new FaultReported("FSC-1", Some.Chassis, "B12", "Corrin", "Corrin", "Hall", JobKind.Growth, "Full"));
        played.Does(new SnapshotTaken(Mirrors()));
        return played;
    }

    private static Snapshot Mirrors(ArrayState right = ArrayState.Whole) =>
        new(
            Some.Noon,
            "redfish",
            [
                Member("1", "SLEFT1", array: "left"),
                Member("2", "SRIGHT1", array: "right"),
                Member("3", "SLEFT2", array: "left"),
                Member("4", "SRIGHT2", array: "right"),
            ],
            [
                new("left", ArrayLevel.Raid1, 2, ArrayState.Whole, 8_000_000_000_000),
                new("right", ArrayLevel.Raid1, 2, right, 8_000_000_000_000),
            ]
        );

    [Fact]
    public void The_array_of_a_sheet_is_the_one_of_the_drives_that_were_chosen_and_its_rebuild_shuts_the_gates()
    {
        var played = Growing();
        played.Does(new DrivesChosen(["SRIGHT1"]));
        var facts = SheetFactsOf.Ticket(played.Ticket, Some.Model, Some.Chassis, reached: true);
        facts.Array.ShouldBe("right");

        played.Does(new EngineerAssigned("ilka"));
        played.Does(new ArrivedOnSite());
        played.Does(new SheetCompiled(((Parsed<RunSheet>.Ok)SheetCompiler.Compile(Shipped.Named("growth"), facts, Guid.NewGuid())).Value));
        played.Does(new SnapshotTaken(Mirrors(ArrayState.Rebuilding)));
        foreach (var fact in new[] { GateFact.NotRebuilding, GateFact.WholeBefore })
            Unmet(played, fact).ShouldNotBeNull($"{fact}");
    }

    [Fact]
    public void Where_no_look_shows_the_array_no_gate_about_it_opens()
    {
        var played = Played.WithSheet();
        played.Does(new SnapshotTaken(Some.Snapshot() with { Bays = [new("2", BayRole.Empty)], Arrays = [] }));

        foreach (var fact in new[] { GateFact.NotRebuilding, GateFact.WholeBefore })
            Unmet(played, fact).ShouldBe("The last snapshot has nothing of vault, which this is about. Take one that has, or call a lead.");
    }

    [Fact]
    public void A_drive_that_the_machine_lists_no_more_still_has_its_bay_its_array_and_a_sheet()
    {
        var played = Played.Reported();
        played.Does(new SnapshotTaken(Some.Snapshot(badRole: BayRole.Member)));
        played.Does(new SnapshotTaken(After(Some.Snapshot(), "2", null)));

        Target.Label(played.Ticket).ShouldBe("2");
        Danger.Of(played.Ticket).Array.ShouldBe("vault");
        var facts = SheetFactsOf.Ticket(played.Ticket, Some.Model, Some.Chassis, reached: true);
        facts.Drives.ShouldHaveSingleItem().Serial.ShouldBe(Some.Bad);
        facts.Array.ShouldBe("vault");
    }

    [Theory]
    [InlineData("8,8,8", 0, 8)] // equal members
    [InlineData("3,4,4", 0, 3)] // the smallest of three is what counts
    [InlineData("3,3,12", 2, 3)] // a larger one is of no more use than the others
    public void A_part_is_large_enough_where_the_array_holds_what_it_held(string terabytes, int nth, int least) =>
        Capacity
            .LeastKeeping(ArrayLevel.Raid5, [.. terabytes.Split(',').Select(t => long.Parse(t) * 1_000_000_000_000)], nth)
            .ShouldBe(least * 1_000_000_000_000L);

    [Fact]
    public void With_mixed_sizes_the_least_is_reckoned_over_all_members()
    {
        long[] sizes = [4, 4, 12, 12];

        Capacity.LeastKeeping(ArrayLevel.MixedSizeOne, sizes, 2).ShouldBe(12); // a 4 in its place would cost eight
        Capacity.LeastKeeping(ArrayLevel.MixedSizeOne, [4, 4, 12], 2).ShouldBe(4); // alone at its height it protects nothing
    }

    [Fact]
    public void What_a_label_says_is_what_such_a_drive_has_and_what_a_person_types_has_the_size_of_its_part()
    {
        ByteSize.Labelled(8_000_000_000_000).ShouldBe(8_001_563_222_016);
        ByteSize.Labelled(8_001_563_222_016).ShouldBe(8_001_563_222_016);
        var played = Played.Reported();
        played.Does(new SnapshotTaken(Some.Snapshot()));
        played.Does(new PartReserved(Some.New, "Cindral C8", 8_000_000_000_000, "Main"), Played.Sefa);

        played.Does(new SnapshotTaken(After(Some.Snapshot(), "2", Member("2", Some.New, bytes: null)) with { Source = "person" }));

        played.Ticket.Latest?.Holding(Some.New)?.Bytes.ShouldBe(8_001_563_222_016);
    }

    [Fact]
    public void What_is_typed_again_is_not_counted_twice_and_what_is_long_ago_weighs_less()
    {
        var played = Played.Reported();
        var last = Some.Noon.AddDays(-400);
        played.Does(new SnapshotTaken(Some.Snapshot()));
        Suspect? Of(string bay) => Danger.Of(played.Ticket).Suspects.FirstOrDefault(s => s.Bay == bay);

        played.Does(new EvidenceSeen(EvidenceKind.LogLines, "log", "time-outs", "3", Count: 40));
        var once = Of("3").ShouldNotBeNull().Weight;
        played.Does(new EvidenceSeen(EvidenceKind.LogLines, "log", "time-outs", "3", Count: 40));
        Of("3").ShouldNotBeNull().Weight.ShouldBe(once);

        played.Arrives(new EvidenceSeen(EvidenceKind.SelfTest, "log", "read failure", "5"), at: last);
        Of("5").ShouldBeNull(); // more than a year ago, and nothing since
        played.Does(new EvidenceSeen(EvidenceKind.SelfTest, "log", "read failure", "5"));
        Of("5").ShouldNotBeNull().Sentence.ShouldContain($"read failure ({last.UtcDateTime:yyyy-MM-dd} to 2026-03-02)");
    }
}
