using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Tests.Swaps;

/// <summary>What was written down out of contact and arrives when more is known.</summary>
public class LateEntryTests
{
    [Fact]
    public void A_note_of_this_morning_takes_its_place_in_the_morning()
    {
        var played = Played.At("pull");
        var before = played.Ticket.Run!.Current;

        played.Arrives(new NoteWritten("Parked at gate two"), at: Some.Noon.AddHours(-3));

        played.Ticket.Run!.Current.ShouldBe(before);
        played.Ticket.Discrepancies.ShouldBeEmpty();
    }

    [Fact]
    public void A_rebuild_that_was_running_when_the_drive_was_pulled_comes_to_light_when_its_snapshot_arrives()
    {
        var played = Played.At("not-rebuilding");
        var passed = played.Now;
        played.Passes();

        played.Arrives(new SnapshotTaken(Some.Snapshot(state: ArrayState.Rebuilding)), at: passed.AddSeconds(30));

        played
            .Ticket.Discrepancies.Select(d => d.Sentence)
            .ShouldBe([
                "'not-rebuilding' was passed by ilka, but at that time: vault is rebuilding. Wait until it has ended, then take a snapshot again.",
            ]);
    }

    [Fact]
    public void A_reading_that_arrives_late_does_not_make_progress_fall_back()
    {
        var played = Played.At("whole");
        ReadingTaken At(decimal percent) => new("vault", Progress.Running, RebuildPhase.Rebuilding, "person", percent);
        var begun = played.Now;
        played.Now = begun.AddMinutes(30);
        played.Arrives(At(50), at: begun.AddMinutes(30));
        played.Arrives(At(20), at: begun.AddMinutes(10));

        var look = new Watch(new WatchSettings()).Look(played.Ticket.Readings, begun.AddMinutes(31));

        look.State.ShouldNotBe(RebuildState.FellBack);
        look.Last?.Percent.ShouldBe(50m);
    }

    [Fact]
    public void The_hand_that_pulled_the_drive_may_be_typed_in_before_the_sheet_says_so()
    {
        var played = Played.At("pull");

        played.Does(new DrivePulled("2", $"S/N: {Some.Bad.ToLowerInvariant()}"));

        played.Ticket.Swap.OutSerial.ShouldBe(Some.Bad);
        played.Ticket.Discrepancies.ShouldBeEmpty();
    }

    [Fact]
    public void Another_drive_than_the_reserved_one_going_in_is_kept_and_questioned()
    {
        var played = Played.At("insert");

        played.Does(new DriveInserted("2", "C8OTHER999"));

        played.Ticket.Swap.InSerial.ShouldBe("C8OTHER999");
        played.Ticket.Discrepancies.Select(d => d.Sentence).ShouldBe([$"C8OTHER999 went in; {Some.New} was reserved for this ticket."]);
    }

    [Fact]
    public void A_drive_that_goes_into_another_bay_than_the_old_one_left_is_questioned()
    {
        var played = Played.At("insert");

        played.Does(new DriveInserted("4", Some.New));

        played.Ticket.Discrepancies.Select(d => d.Sentence).ShouldBe([$"{Some.New} went into bay 4; the drive came out of bay 2."]);
    }
}
