using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Rebuilds;

namespace Nailcrow.Core.Tests.Rebuilds;

/// <summary>What is told of the time left, held against rebuilds whose end is known.</summary>
public class RangeTests
{
    private const int Rebuilds = 400;

    public static readonly MatrixTheoryData<Going, double> Trials = new(Enum.GetValues<Going>(), [0.03, 0.3, 0.7]);

    [Theory, MemberData(nameof(Trials))]
    public void What_is_said_to_be_right_so_many_times_in_100_is(Going going, double from)
    {
        var random = new Random(20260302 + 1000 * (int)going + (int)(from * 100));
        var (told, held, claimed) = (0, 0, 0);
        for (var i = 0; i < Rebuilds; i++)
        {
            var rebuild = new MadeUpRebuild(going, random);
            var minute = rebuild.MinuteOf(from + random.NextDouble() * 0.27);
            var readings = rebuild.ReadUntil(minute, decimals: random.Next(2), every: new[] { 1, 5, 20 }[random.Next(3)]);
            if (new Watch(new WatchSettings()).Look(readings, readings[^1].At).Left is not { } left)
                continue;
            var truth = Some.Noon + rebuild.Takes - readings[^1].At;
            (told, claimed) = (told + 1, left.Confidence);
            held += left.Least <= truth && truth <= left.Most ? 1 : 0;
        }

        told.ShouldBeGreaterThan(Rebuilds / 2);
        TestContext.Current.TestOutputHelper?.WriteLine($"{going} from {from:0 %}: {100.0 * held / told:0.0} in 100 of {told}");
        (100.0 * held / told).ShouldBeGreaterThanOrEqualTo(claimed);
    }

    [Fact]
    public void A_machine_that_copies_only_what_is_used_may_be_done_at_any_time()
    {
        var readings = Enumerable.Range(0, 6).Select(i => MadeUpRebuild.Shown(i * 10, i * 0.02, 1, "redfish")).ToList();

        var look = new Watch(new WatchSettings(), 8_000_000_000_000, 200, RebuildCopies.UsedSpace).Look(readings, readings[^1].At);

        look.Left!.Least.ShouldBe(TimeSpan.Zero);
        look.Sentence.ShouldStartWith("10.0 % of rebuilding; at most ");
    }

    [Theory, InlineData(1), InlineData(2), InlineData(3), InlineData(4), InlineData(5), InlineData(6)]
    public void One_mistyped_reading_does_not_move_the_range(int seed)
    {
        var random = new Random(seed);
        for (var i = 0; i < 100; i++)
        {
            var rebuild = new MadeUpRebuild(Going.Steady, random);
            var readings = rebuild.ReadUntil(rebuild.MinuteOf(0.3 + random.NextDouble() * 0.6), decimals: 1, every: 20);
            if (readings.Count < 8)
                continue;
            var sound = Look(readings).Left;
            var slip = random.Next(3, readings.Count);
            // Digits in the wrong order, a digit too few, another number altogether.
            var typed = new[] { random.Next(0, 100), readings[slip].Percent!.Value / 10, 100 - readings[slip].Percent!.Value };
            readings.Insert(
                slip,
                readings[slip] with
                {
                    At = readings[slip].At.AddMinutes(-5),
                    Percent = typed[random.Next(3)],
                    Source = "person",
                }
            );

            var look = Look(readings);

            look.State.ShouldNotBe(RebuildState.FellBack);
            look.Left.ShouldNotBeNull();
            look.Left.Most.ShouldBeInRange(sound!.Most * 0.6, sound.Most * 1.6);
            look.Left.Least.ShouldBeInRange(sound.Least * 0.6, sound.Least * 1.6);
        }
    }

    private static RebuildLook Look(List<Reading> readings) => new Watch(new WatchSettings()).Look(readings, readings[^1].At);
}
