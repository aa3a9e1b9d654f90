using Nailcrow.Core.Rebuilds;

namespace Nailcrow.Core.Tests.Rebuilds;

/// <summary>What a display shows is not what is so: it is rounded, moves in blocks, and is read by people who slip.</summary>
public class DisplayTests
{
    private static readonly TimeSpan Nearly = TimeSpan.FromMinutes(1);

    [Fact]
    public void Two_who_round_in_their_own_way_never_make_it_fall_back()
    {
        var random = new Random(4);
        for (var i = 0; i < 300; i++)
        {
            var rebuild = new MadeUpRebuild((Going)random.Next(6), random);
            var shown = rebuild.ReadUntil(rebuild.MinuteOf(0.1 + random.NextDouble() * 0.8), decimals: 2, every: 7);
            var readings = shown.Select(r => r with { Source = "person", Percent = AsReadBy(random.Next(5), r.Percent!.Value) }).ToList();

            for (var seen = 1; seen <= readings.Count; seen += 3)
                Look([.. readings.Take(seen)])
                    .State.ShouldNotBe(RebuildState.FellBack, $"{string.Join(", ", readings.Select(r => r.Percent))}");
        }
    }

    /// <summary>To a tenth down, to a tenth to the nearest, to one down, to the nearest, and up: as people read one screen.</summary>
    private static decimal AsReadBy(int person, decimal percent) =>
        person switch
        {
            0 => Math.Round(percent, 1, MidpointRounding.ToZero),
            1 => Math.Round(percent, 1),
            2 => Math.Floor(percent),
            3 => Math.Round(percent),
            _ => Math.Min(100, Math.Ceiling(percent)),
        };

    [Theory, InlineData(16.5, 2), InlineData(16.5, 0), InlineData(20, 0), InlineData(8, 1), InlineData(4, 0)]
    public void A_bar_of_blocks_is_not_stalled_between_two_of_them(double blocks, int decimals)
    {
        var random = new Random(9);
        for (var i = 0; i < 60; i++)
        {
            var rebuild = new MadeUpRebuild(Going.Steady, random);
            if (rebuild.Takes > TimeSpan.FromHours(blocks))
                continue; // before the first block nobody knows of blocks, and two hours without any news of a rate are long
            var readings = rebuild
                .ReadUntil(rebuild.Takes.TotalMinutes * 0.99, decimals: 3, every: 5)
                .Select(r => r with { Percent = InBlocks(r.Percent!.Value, (decimal)blocks, decimals) })
                .ToList();

            for (var seen = 1; seen <= readings.Count; seen += 1 + readings.Count / 50)
                Look([.. readings.Take(seen)])
                    .State.ShouldNotBe(RebuildState.Stalled, $"{readings[seen - 1].Percent} % in blocks of {100 / blocks}");
        }
    }

    private static decimal InBlocks(decimal percent, decimal blocks, int decimals) =>
        Math.Round(Math.Floor(percent / (100 / blocks)) * (100 / blocks), decimals, MidpointRounding.ToZero);

    [Fact]
    public void A_bar_of_blocks_that_stands_five_blocks_long_is_stalled()
    {
        var moving = Enumerable.Range(0, 120).Select(m => At(m * 5, Math.Round(m / 20 * 6.06m, 2))).ToList();
        var last = moving[^1];

        Look([.. moving, last with { At = last.At.AddMinutes(300) }]).State.ShouldBe(RebuildState.Moving);
        Look([.. moving, last with { At = last.At.AddMinutes(700) }]).State.ShouldBe(RebuildState.Stalled);
    }

    [Fact]
    public void One_reading_that_does_not_follow_is_asked_for_once_more_and_the_range_stands()
    {
        var sound = Look(Steady(8));

        var look = Look([.. Steady(8), At(80, 8m, "person")]);

        look.State.ShouldBe(RebuildState.ReadAgain);
        look.Sentence.ShouldBe("8 % does not follow 70 % 10 min before: a slip, or it began again. Read it once more.");
        look.Left!.Most.ShouldBe(sound.Left!.Most - TimeSpan.FromMinutes(10), Nearly);
    }

    [Fact]
    public void The_next_reading_tells_a_slip_from_a_rebuild_that_began_again()
    {
        Look([.. Steady(8), At(80, 8m, "person"), At(90, 80m)]).State.ShouldBe(RebuildState.Moving);
        Look([.. Steady(8), At(80, 8m, "person"), At(90, 9m)])
            .Sentence.ShouldBe("Fell back to 9 % of rebuilding; counted afresh from there.");
    }

    [Fact]
    public void A_leap_is_asked_about_and_a_second_reading_settles_it()
    {
        Look([.. Steady(5), At(45, 94m)])
            .Sentence.ShouldBe("94 % does not follow 40 % 5 min before: a slip, or it leapt. Read it once more.");
        Look([.. Steady(5), At(45, 94m), At(50, 95m)]).Last!.Percent.ShouldBe(95m);
        Look([.. Steady(5), At(45, 94m), At(50, 95m)]).State.ShouldBe(RebuildState.Moving);
        Look([.. Steady(5), At(45, 94m, "person"), At(50, 50m)]).State.ShouldBe(RebuildState.Moving);
    }

    [Fact]
    public void A_number_typed_a_little_too_high_gives_way_to_the_next()
    {
        var look = Look([.. Steady(5), At(45, 48m, "person"), At(50, 45m), At(60, 55m)]);

        look.State.ShouldBe(RebuildState.Moving);
        look.Last!.Percent.ShouldBe(55m);
    }

    [Fact]
    public void One_wrong_phase_between_two_of_the_same_is_a_slip()
    {
        var wrong = At(45, 45m, "person") with { Phase = RebuildPhase.Checking };

        Look([.. Steady(5), wrong, At(50, 50m)]).State.ShouldBe(RebuildState.Moving);
        Look([.. Steady(5), wrong with { Source = "redfish" }, At(50, 50m)]).State.ShouldBe(RebuildState.TooEarly);
    }

    [Theory, InlineData(RebuildPhase.Checking), InlineData(RebuildPhase.Preparing)]
    public void A_phase_that_is_done_is_not_the_rebuild(RebuildPhase phase)
    {
        var done = At(50, null) with { Progress = Progress.Done, Phase = phase };

        var look = Look([.. Steady(5), done]);

        look.State.ShouldBe(RebuildState.TooEarly);
        look.Sentence.ShouldBe(
            $"Done with {phase.ToString().ToLowerInvariant()}; that is not the rebuild's end. What follows is not seen yet."
        );
    }

    [Fact]
    public void Without_a_percentage_it_is_told_what_the_size_allows()
    {
        var watch = new Watch(new WatchSettings(), 7_200_000_000_000, 200, NotBefore: Some.Noon.AddHours(-1));

        watch
            .Look([At(0, null)], Some.Noon)
            .Sentence.ShouldBe(
                "Running; this machine shows no percentage, so all that can be said is that writing it takes 10 h 0 min: not over before 2026-03-02 21:00 UTC."
            );
    }

    [Theory]
    [InlineData("62", "62.00000000000000000001", "62.00000000000000000002", "62.00000000000000000003", "62.00000000000000000004")]
    [InlineData("1", "62", "62.0000000000000000001", "62.00000000001", "63.1234567890123456789")]
    [InlineData("33.333333", "33.333334", "33.333336", "40.000001", "66.666666")]
    [InlineData("0", "0.001", "0.002", "99.999", "100")]
    public void Decimals_that_no_display_has_keep_nobody_waiting(params string[] percents)
    {
        var readings = percents.Select((p, i) => At(i * 10, decimal.Parse(p, System.Globalization.CultureInfo.InvariantCulture))).ToList();

        for (var seen = 1; seen <= readings.Count; seen++)
            Look([.. readings.Take(seen)]).Sentence.ShouldNotBeEmpty();
    }

    [Fact]
    public void A_typed_reading_that_is_taken_back_counts_no_more_and_is_still_in_the_journal()
    {
        var played = Played.At("new-seen");
        played.Does(Typed(10m));
        var at = played.Ticket.Readings[^1].At;
        played.Does(Typed(91m));

        played.Does(new ReadingTakenBack(played.Ticket.Readings[^1].At));

        played.Ticket.Readings.ShouldHaveSingleItem().At.ShouldBe(at);
        new ReadingTakenBack(Some.Noon).Problem(played.Ticket)!.ShouldStartWith("Nobody typed a reading at ");
        new ReadingTakenBack(Some.Noon)
            .Problem(Played.At("new-seen").Ticket)
            .ShouldBe("Nobody typed a reading on this ticket; what a machine said is not taken back.");
    }

    private static ReadingTaken Typed(decimal percent) => new("vault", Progress.Running, RebuildPhase.Rebuilding, Reading.Person, percent);

    private static List<Reading> Steady(int readings) => [.. Enumerable.Range(0, readings).Select(i => At(i * 10, i * 10m))];

    private static Reading At(double minute, decimal? percent, string source = "redfish") =>
        new(Some.Noon.AddMinutes(minute), "vault", Progress.Running, RebuildPhase.Rebuilding, percent, source);

    private static RebuildLook Look(List<Reading> readings) => new Watch(new WatchSettings()).Look(readings, readings[^1].At);
}
