using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Rebuilds;

/// <summary>Nailcrow following a rebuild: readings in, one honest look out.</summary>
/// <param name="Bytes">Bytes to write onto the new drive, where known.</param>
/// <param name="MegabytesPerSecond">Sustained rate of the slowest drive in it, decimal MB/s, where known.</param>
public sealed record Watch(WatchSettings Settings, long? Bytes = null, int? MegabytesPerSecond = null)
{
    public RebuildLook Look(IReadOnlyCollection<Reading> readings, DateTimeOffset now)
    {
        var last = readings.OrderBy(r => r.At).LastOrDefault();
        if (last is null)
            return new(RebuildState.NotSeen, "No rebuild has been seen to start.");
        if (last.Progress == Progress.Done)
            return new(RebuildState.Done, $"Done, seen at {Clock(last.At)}.", last, last.At);
        if (last.Progress == Progress.Failed)
            return new(RebuildState.Failed, $"Failed, seen at {Clock(last.At)}. Pull nothing; call the lead.", last, last.At);
        if (now - last.At > Settings.NoNewsAfter)
            return new(
                RebuildState.NoNews,
                $"No news for {Told(now - last.At)}; last seen at {Shown(last)}. That is not the same as no progress: look at the machine another way.",
                last,
                last.At
            );
        return Segment.Of(readings) is [.., var segment] && segment.Last.At == last.At
            ? OfSegment(segment, last, now)
            : new(RebuildState.TooEarly, "Running; this machine shows no percentage, so nothing can be said of the time left.", last);
    }

    private RebuildLook OfSegment(Segment segment, Reading last, DateTimeOffset now)
    {
        var steps = TimeLeft.Steps(segment);
        var unmoved = last.At - steps[^1].At;
        if (unmoved > StalledAfter(steps))
            return new(
                RebuildState.Stalled,
                $"Stalled: {Shown(last)} for {Told(unmoved)}, much longer than one step should take.",
                last,
                steps[^1].At
            );
        var left = TimeLeft.From(segment, Floor(steps), now);
        if (left is not null)
            return new(
                RebuildState.Moving,
                $"{Shown(last)}; between {Told(left.Least)} and {Told(left.Most)} left, right {left.Confidence} times in 100.",
                last,
                segment.Readings[0].At,
                left
            );
        return segment.FellBack
            ? new(RebuildState.FellBack, $"Fell back to {Shown(last)}; counted afresh from there.", last, segment.Readings[0].At)
            : new(RebuildState.TooEarly, $"{Shown(last)}; too early to tell.", last, segment.Readings[0].At);
    }

    private TimeSpan StalledAfter(List<Reading> steps)
    {
        var moved = (double)(steps[^1].Percent! - steps[0].Percent!) / 100; // Segment keeps only readings with one
        if (moved <= 0)
            return Settings.StalledWithoutRate;
        var oneStep = (steps[^1].At - steps[0].At) * (TimeLeft.DisplayStep(steps) / moved);
        var patience = oneStep * Settings.StallFactor;
        return patience > Settings.StalledNoSoonerThan ? patience : Settings.StalledNoSoonerThan;
    }

    /// <summary>
    /// What is left cannot take less than writing it at the drive's rate. A floor that the readings themselves have
    /// beaten is none: the machine rebuilds used space only, or the model's rate is wrong.
    /// </summary>
    private TimeSpan Floor(List<Reading> steps)
    {
        if (Bytes is not { } bytes || MegabytesPerSecond is not (> 0 and var rate))
            return TimeSpan.Zero;
        var whole = TimeSpan.FromSeconds(bytes / (rate * 1e6));
        var moved = (double)(steps[^1].Percent! - steps[0].Percent!) / 100; // Segment keeps only readings with one
        var beaten = moved > 0 && steps[^1].At - steps[0].At < whole * Math.Max(0, moved - TimeLeft.DisplayStep(steps));
        return beaten ? TimeSpan.Zero : whole * (1 - (double)steps[^1].Percent! / 100);
    }

    private static string Shown(Reading reading) =>
        reading.Percent is { } percent ? $"{percent} % of {Words.Of(reading.Phase)}" : Words.Of(reading.Phase);

    private static string Clock(DateTimeOffset at) => at.UtcDateTime.ToString("yyyy-MM-dd HH:mm") + " UTC";

    /// <summary>A length of time as a person says it, in the two largest units that matter.</summary>
    public static string Told(TimeSpan span) =>
        span.TotalDays >= 2 ? $"{span.TotalDays:0.#} days"
        : span.TotalHours >= 1 ? $"{(int)span.TotalHours} h {span.Minutes} min"
        : span.TotalMinutes >= 1 ? $"{Math.Ceiling(span.TotalMinutes):0} min"
        : $"{Math.Ceiling(span.TotalSeconds):0} s";
}
