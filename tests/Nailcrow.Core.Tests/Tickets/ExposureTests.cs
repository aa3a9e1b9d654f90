using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Tests.Tickets;

public class ExposureTests
{
    private static Played Swapped(JobKind job = JobKind.Fault)
    {
        var played = new Played();
        void Later(int hours) => played.Now = Some.Noon.AddHours(hours);
        Later(0);
        played.Does(
            new FaultReported(
                "FSC-1",
                Some.Chassis,
                "B12",
                "Corrin",
                "Corrin",
                "Hall",
                job,
                "Lamp",
                "2",
                Some.Bad,
                Since: Some.Noon.AddHours(-2)
            )
        );
        played.Does(new SnapshotTaken(Some.Snapshot()));
        played.Does(new PartReserved(Some.New, "Cindral C8", 8_001_563_222_016, "Main"), Played.Sefa);
        Later(5);
        played.Does(new PartIssued(Some.New, "ilka"), Played.Sefa);
        Later(9);
        played.Does(new ArrivedOnSite());
        Later(10);
        played.Does(new DrivePulled("2", Some.Bad));
        played.Does(new DriveInserted("2", Some.New));
        return played;
    }

    private static IEnumerable<(ExposurePart, int)> Hours(Exposure? exposure) =>
        exposure?.Stretches.Select(s => (s.Part, s.To is { } to ? (int)Math.Round((to - s.From).TotalHours) : -1)) ?? [];

    [Fact]
    public void Where_the_time_without_redundancy_went_is_told_stretch_by_stretch()
    {
        var played = Swapped();
        played.Now = Some.Noon.AddHours(30);
        played.Does(new ReadingTaken("vault", Progress.Done, RebuildPhase.Rebuilding, "person"));

        var exposure = Exposure.Of(played.Ticket, played.Now);

        Hours(exposure)
            .ShouldBe([(ExposurePart.WaitingForPart, 7), (ExposurePart.Travel, 4), (ExposurePart.Work, 1), (ExposurePart.Rebuild, 20)]);
        exposure?.Until.ShouldBe(played.Ticket.Readings[^1].At);
    }

    [Fact]
    public void While_it_lasts_the_last_stretch_has_no_end() =>
        Hours(Exposure.Of(Swapped().Ticket, Some.Noon.AddHours(30))).Last().ShouldBe((ExposurePart.Rebuild, -1));

    [Fact]
    public void A_ticket_of_seconds_ago_is_not_another_one_each_second()
    {
        var played = new Played();
        played.Does(new FaultReported("FSC-1", Some.Chassis, "B12", "Corrin", "Corrin", "Hall", JobKind.Fault, "Lamp", "2", Some.Bad));

        Enumerable
            .Range(0, 60)
            .Select(s => Exposure.Of(played.Ticket, played.Now.AddSeconds(s)))
            .Select(e => $"{e?.Lasted}, {e?.Stretches.LastOrDefault()?.Lasted}")
            .Distinct()
            .ShouldHaveSingleItem();
    }

    [Fact]
    public void An_early_job_exposes_nothing_until_its_drive_is_pulled()
    {
        var played = new Played();
        played.Does(new FaultReported("FSC-1", Some.Chassis, "B12", "Corrin", "Corrin", "Hall", JobKind.Early, "Warns", "2", Some.Bad));

        Exposure.Of(played.Ticket, played.Now).ShouldBeNull();
        Hours(Exposure.Of(Swapped(JobKind.Early).Ticket, Some.Noon.AddHours(30)))
            .Select(h => h.Item1)
            .ShouldNotContain(ExposurePart.WaitingForPart);
    }

    [Fact]
    public void What_the_engineers_own_step_caused_speaks_against_nothing_and_what_another_bay_says_does()
    {
        var played = Played.WithSheet();
        played.Arrives(new DrivePulled("2", Some.Bad));

        played.Does(new EvidenceSeen(EvidenceKind.Alert, "redfish", "drive removed", "2"));
        played.Does(new EvidenceSeen(EvidenceKind.Alert, "redfish", "vault is degraded"));
        played.Does(new EvidenceSeen(EvidenceKind.Alert, "redfish", "drive failed", "5"));

        played.Ticket.Evidence.Select(e => e.Step is not null).ShouldBe([true, true, false]);
        Danger.Of(played.Ticket).Suspects.Select(s => s.Bay).ShouldBe(["5"]);
    }

    [Fact]
    public void A_drives_life_is_told_once_for_as_long_as_it_stays_as_it_is()
    {
        var played = Swapped();
        played.Does(new SnapshotTaken(Some.Snapshot(badRole: BayRole.Filling, badSerial: Some.New)));
        played.Does(new SnapshotTaken(Some.Snapshot(badRole: BayRole.Filling, badSerial: Some.New)));
        played.Does(new DriveWiped(Some.Bad, "overwritten once"));

        var life = DriveLife.Of(played.Record);

        life.Where(e => e.Serial == Some.New)
            .Select(e => e.Sentence)
            .ShouldBe([
                "In bay 2 of FSC-1: filling, reads good.",
                "Went to depot Main.",
                "Went to engineer ilka.",
                "Went to bay 2 of FSC-1.",
            ]);
        life.Where(e => e.Serial == Some.Bad).Select(e => e.Kind).ShouldBe([LifeEventKind.Seen, LifeEventKind.Wiped, LifeEventKind.Moved]);
    }

    [Fact]
    public void A_map_of_bays_is_a_guess_until_a_pull_confirmed_it_and_two_visits_that_disagree_are_told()
    {
        BayMap.Warning([]).ShouldNotBeNull().ShouldStartWith("Nobody has confirmed this map yet");
        var seen = BayMap.Learnt(Swapped().Ticket).ToList();
        seen.Select(s => (s.Bay, s.Name, s.How)).ShouldBe([("2", "dk0", "pull")]);
        BayMap.Warning(seen).ShouldBeNull();
        BayMap.WarningOf("2", seen).ShouldBeNull();
        BayMap
            .WarningOf("3", seen)
            .ShouldBe("No pull and no light has confirmed yet which drive the software means by bay 3. Trust the marks, not the name.");
        BayMap
            .Warning([.. seen, seen[0] with { Bay = "7" }])
            .ShouldBe("Two visits disagree: dk0 was found in bays 2 and 7. The cabling was changed, or a record is wrong.");
    }

    [Fact]
    public void A_machine_set_up_without_redundancy_is_said_to_be_beyond_a_swap_before_anything_is_known_of_its_bays()
    {
        var played = new Played();
        played.Does(
            new FaultReported(
                "FSC-1",
                Some.Chassis,
                "B12",
                "Corrin",
                "Corrin",
                "Hall",
                JobKind.Fault,
                "Lamp",
                Arrays: [new("scratch", ArrayLevel.Raid0, 3)]
            )
        );

        Danger.Of(played.Ticket).Help.ShouldBe(SwapHelp.NoRedundancy);
        NextAction
            .Of(played.Ticket)
            .Say.ShouldBe(
                "Talk to the customer before anyone travels. The machine was set up without redundancy: no swap "
                    + "brings its data back. It is rebuilt from nothing and restored."
            );
        played.Does(new HelpCalled("They know and want the drive replaced all the same."));
        played.Does(new HelpAnswered(true, "Agreed with the keeper."), Played.Lioth);
        NextAction.Of(played.Ticket).Move.ShouldBe(Move.Take);
    }
}
