using Nailcrow.Core.Rebuilds;

namespace Nailcrow.Core.Tests.Rebuilds;

/// <summary>What happens to a rebuild while somebody waits for it.</summary>
public enum Going
{
    Steady,
    LoadByDay,
    InBursts,
    OneChangeOfPace,
    WithStops,
    AllAtOnce,
}

/// <summary>
/// A rebuild played through minute by minute, and what a display would have shown of it. It knows nothing of how Nailcrow reckons.
/// </summary>
internal sealed class MadeUpRebuild
{
    private readonly Random _random;
    private readonly List<(double Minute, double Share)> _way = [(0, 0)];

    public MadeUpRebuild(Going going, Random random)
    {
        _random = random;
        var minutes = 60 * Between(2, 60, log: true);
        var slowing = Between(0, 0.5); // the inner tracks of a disk run at about half the outer rate
        var startsAt = Between(0, 24);
        var load = Between(0.2, 0.9);
        var (changesAt, changesBy) = (Between(0.05, 0.95), Between(0.3, 3, log: true));
        var stops = Enumerable
            .Range(0, random.Next(1, 4))
            .Select(_ => (At: Between(0.02, 0.98), Left: Between(0.02, 0.3) * minutes))
            .ToArray();
        var hours = new Dictionary<int, double>();
        var step = Math.Max(0.5, minutes / 2000);
        for (var (minute, share) = (0.0, 0.0); share < 1; _way.Add((minute, Math.Min(1, share))))
        {
            var pace = (1 - slowing * share) / (1 - slowing / 2) / minutes;
            if (Is(Going.LoadByDay) && (startsAt + minute / 60) % 24 is >= 8 and < 18)
                pace *= load;
            if (Is(Going.InBursts))
                pace *= hours.TryGetValue((int)(minute / 60), out var now) ? now : hours[(int)(minute / 60)] = Between(0.3, 1);
            if (Is(Going.OneChangeOfPace) && share > changesAt)
                pace *= changesBy;
            if (Is(Going.WithStops) && Array.FindIndex(stops, s => share > s.At && s.Left > 0) is >= 0 and var stop)
                (pace, stops[stop].Left) = (0, stops[stop].Left - step);
            share += pace * step * Between(0.8, 1.2);
            minute += step;
        }

        bool Is(Going what) => going == what || going == Going.AllAtOnce;
    }

    public TimeSpan Takes => TimeSpan.FromMinutes(_way[^1].Minute);

    /// <summary>When it has come so far.</summary>
    public double MinuteOf(double share) => _way.First(w => w.Share >= share).Minute;

    /// <summary>What was read up to a minute, every so often, of a display with so many decimals.</summary>
    public List<Reading> ReadUntil(double minute, int decimals, double every, string source = "redfish")
    {
        var readings = new List<Reading>();
        foreach (var (at, share) in _way.TakeWhile(w => w.Minute <= minute))
            if (at >= readings.Count * every)
                readings.Add(Shown(at, share, decimals, source));
        return readings;
    }

    public static Reading Shown(double minute, double share, int decimals, string source) =>
        new(
            Some.Noon.AddMinutes(minute),
            "vault",
            Progress.Running,
            RebuildPhase.Rebuilding,
            Math.Round((decimal)share * 100, decimals, MidpointRounding.ToZero),
            source
        );

    private double Between(double least, double most, bool log = false) =>
        log ? Math.Exp(Between(Math.Log(least), Math.Log(most))) : least + _random.NextDouble() * (most - least);
}
