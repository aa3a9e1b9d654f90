using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps.Seen;

namespace Nailcrow.Core.Tests.Rebuilds;

public class WatchTests
{
    private static readonly Watch Plain = new(new WatchSettings());

    private static Reading Read(
        double minutes,
        decimal? percent,
        Progress progress = Progress.Running,
        RebuildPhase phase = RebuildPhase.Rebuilding
    ) => new(Some.Noon.AddMinutes(minutes), "vault", progress, phase, percent, "person");

    private static RebuildLook Look(double nowMinutes, params Reading[] readings) => Plain.Look(readings, Some.Noon.AddMinutes(nowMinutes));

    [Fact]
    public void Nothing_seen_is_said_as_nothing_seen() =>
        Look(0).ShouldBe(new RebuildLook(RebuildState.NotSeen, "No rebuild has been seen to start."));

    [Fact]
    public void Two_readings_are_too_early_to_tell() =>
        Look(10, Read(0, 1m), Read(10, 3m)).Sentence.ShouldBe("3 % of rebuilding; too early to tell.");

    [Fact]
    public void A_machine_without_a_percentage_gets_no_time_left() =>
        Look(10, Read(0, null), Read(10, null))
            .Sentence.ShouldBe("Running; this machine shows no percentage, so nothing can be said of the time left.");

    [Fact]
    public void A_steady_rebuild_gets_a_range_that_holds_the_steady_end()
    {
        var look = Look(40, Read(0, 0m), Read(10, 10m), Read(20, 20m), Read(30, 30m), Read(40, 40m));

        look.State.ShouldBe(RebuildState.Moving);
        look.Left.ShouldNotBeNull();
        look.Left.Least.ShouldBeLessThan(TimeSpan.FromMinutes(60));
        look.Left.Most.ShouldBeGreaterThan(TimeSpan.FromMinutes(60));
    }

    [Theory, InlineData(20, RebuildState.Moving), InlineData(21, RebuildState.NoNews)]
    public void No_news_is_said_after_more_than_20_silent_minutes(int silent, RebuildState state) =>
        Look(30 + silent, Read(0, 0m), Read(10, 10m), Read(20, 20m), Read(30, 30m)).State.ShouldBe(state);

    [Fact]
    public void No_news_is_not_told_as_no_progress() =>
        Look(60, Read(0, 0m), Read(10, 10m))
            .Sentence.ShouldBe(
                "No news for 50 min; last seen at 10 % of rebuilding. That is not the same as no progress: look at the machine another way."
            );

    [Theory, InlineData(80, RebuildState.Moving), InlineData(82, RebuildState.Stalled)]
    public void A_display_that_stands_five_times_longer_than_a_step_takes_is_stalled(int until, RebuildState state)
    {
        var moving = new[] { Read(0, 0m), Read(10, 1m), Read(20, 2m), Read(30, 3m) };
        var standing = Enumerable.Range(31, until - 30).Select(m => Read(m, 3m));

        Look(until, [.. moving, .. standing]).State.ShouldBe(state);
    }

    [Fact]
    public void Progress_that_fell_back_is_counted_afresh_from_there() =>
        Look(40, Read(0, 0m), Read(10, 20m), Read(20, 40m), Read(30, 5m), Read(40, 10m))
            .Sentence.ShouldBe("Fell back to 10 % of rebuilding; counted afresh from there.");

    [Fact]
    public void Percent_belongs_to_a_phase_and_a_new_phase_is_no_falling_back() =>
        Look(20, Read(0, 40m, phase: RebuildPhase.Checking), Read(10, 99m, phase: RebuildPhase.Checking), Read(20, 2m))
            .State.ShouldBe(RebuildState.TooEarly);

    [Fact]
    public void Done_is_done_even_where_the_reading_came_late() =>
        Look(50, Read(20, 60m), Read(30, null, Progress.Done), Read(10, 30m))
            .ShouldBe(
                new RebuildLook(
                    RebuildState.Done,
                    "Done, seen at 2026-03-02 12:30 UTC.",
                    Read(30, null, Progress.Done),
                    Some.Noon.AddMinutes(30)
                )
            );

    [Fact]
    public void A_rebuild_that_was_over_before_anybody_looked_is_seen_to_be_over_by_its_snapshot()
    {
        var played = Played.At("new-seen");

        played.Does(
            new SnapshotTaken(Some.Snapshot(state: ArrayState.Whole, badRole: Core.Appliances.BayRole.Member, badSerial: Some.New))
        );

        Plain.Look(played.Ticket.Readings, played.Now).State.ShouldBe(RebuildState.Done);
    }

    [
        Theory,
        InlineData(100, null),
        InlineData(100.1, "100.1 % is not a reading; a screen shows 0 to 100. If it shows none, leave the percentage out."),
        InlineData(-1, "-1 % is not a reading; a screen shows 0 to 100. If it shows none, leave the percentage out.")
    ]
    public void A_reading_is_within_0_and_100(double percent, string? problem) => Reading.Problem((decimal)percent).ShouldBe(problem);

    [Fact]
    public void The_range_is_never_shorter_than_writing_what_is_left()
    {
        var watch = new Watch(new WatchSettings(), Bytes: 8_000_000_000_000, MegabytesPerSecond: 200);
        var readings = Enumerable.Range(0, 6).Select(i => Read(i * 8, i * 1.0m)).ToList();

        var look = watch.Look(readings, Some.Noon.AddMinutes(40));

        look.Left.ShouldNotBeNull();
        look.Left.Least.ShouldBeGreaterThanOrEqualTo(TimeSpan.FromSeconds(0.95 * 40_000));
    }
}
