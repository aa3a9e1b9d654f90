using System.Diagnostics;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;

namespace Nailcrow.Bench;

/// <summary>Pull verdicts of every bay: of 106 bays in four arrays, against twelve bays in one.</summary>
internal static class Verdicts
{
    private const int Rounds = 5_000;

    public static Task MeasureAsync()
    {
        var (large, small) = (Filled(106, 4), Filled(12, 1));
        var (largeTook, smallTook) = (new List<double>(), new List<double>());
        for (var i = 0; i < Rounds; i++)
        {
            largeTook.Add(Took(large));
            smallTook.Add(Took(small));
        }
        var (ofLarge, ofSmall) = (Told.Median(largeTook.Skip(Rounds / 2)), Told.Median(smallTook.Skip(Rounds / 2)));
        Told.Plain("verdicts of 106 bays, four arrays", ofLarge, "ms", "under 1");
        Told.Line("per bay, 106 against 12", ofLarge / 106 * 1000, ofSmall / 12 * 1000, "µs", "at most 3");
        return Task.CompletedTask;
    }

    private static double Took(Snapshot snapshot)
    {
        var clock = Stopwatch.StartNew();
        GC.KeepAlive(BayVerdict.ForAll(snapshot));
        return clock.Elapsed.TotalMilliseconds;
    }

    private static Snapshot Filled(int bays, int arrays) =>
        new(
            DateTimeOffset.UnixEpoch,
            "person",
            [
                .. Enumerable
                    .Range(0, bays)
                    .Select(b => new Bay(
                        $"{b + 1}",
                        b % 17 == 5 ? BayRole.Dropped : BayRole.Member,
                        DriveHealth.Good,
                        $"sd{b}",
                        $"S{b:0000000}",
                        Bytes: 8_000_000_000_000,
                        Array: $"a{b % arrays}",
                        Group: b / arrays % 2
                    )),
            ],
            [
                .. Enumerable
                    .Range(0, arrays)
                    .Select(a => new DriveArray(
                        $"a{a}",
                        a % 2 == 0 ? ArrayLevel.Raid60 : ArrayLevel.KPlusM,
                        (bays - a + arrays - 1) / arrays,
                        ArrayState.Degraded,
                        8_000_000_000_000,
                        2,
                        4
                    )),
            ]
        );
}
