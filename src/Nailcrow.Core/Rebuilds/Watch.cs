using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Rebuilds;

/// <summary>Nailcrow following a rebuild: readings in, one honest look out.</summary>
/// <param name="Bytes">Bytes to write onto the new drive, where known.</param>
/// <param name="MegabytesPerSecond">Sustained rate of the slowest drive in it, decimal MB/s, where known.</param>
/// <param name="Copies">A rebuild that copies only what is used may be over at any time, whatever its percentage says.</param>
/// <param name="NotBefore">It cannot have begun earlier: when the new drive went in.</param>
public sealed record Watch(
    WatchSettings Settings,
    long? Bytes = null,
    int? MegabytesPerSecond = null,
    RebuildCopies Copies = RebuildCopies.WholeMember,
    DateTimeOffset? NotBefore = null
)
{
    public RebuildLook Look(IReadOnlyCollection<Reading> readings, DateTimeOffset now)
    {
        var last = readings.OrderBy(r => r.At).LastOrDefault();
        if (last is null)
            return new(RebuildState.NotSeen, "No rebuild has been seen to start.");
        if (last.IsTheEnd())
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
        if (last.Progress == Progress.Done)
            return new(
                RebuildState.TooEarly,
                $"Done with {Words.Of(last.Phase)}; that is not the rebuild's end. What follows is not seen yet.",
                last
            );
        if (last.Percent is null)
            return new(RebuildState.TooEarly, $"Running; this machine shows no percentage, so {NoSooner()}.", last);
        var course = Course.Of(readings);
        return (course.Segments, course.Doubted) switch
        {
            ([.., var segment], null) => OfSegment(segment, last, now),
            ([.., var segment], { } doubted) => OfDoubted(segment, doubted, now),
            _ => throw new System.Diagnostics.UnreachableException(), // a running reading with a percentage begins a segment
        };
    }

    private string NoSooner() =>
        (NotBefore, Floor()) is ({ } began, { } floor)
            ? $"all that can be said is that writing it takes {Told(floor)}: not over before {Clock(began + floor)}"
            : "nothing can be said of the time left";

    private RebuildLook OfDoubted(Segment segment, Reading doubted, DateTimeOffset now)
    {
        var last = segment.Last;
        return new(
            RebuildState.ReadAgain,
            $"{doubted.Percent} % does not follow {last.Percent} % {Told(doubted.At - last.At)} before: a slip, or "
                + $"{(doubted.Percent < last.Percent ? "it began again" : "it leapt")}. Read it once more.",
            doubted,
            last.At,
            Left(segment, now)
        );
    }

    private RebuildLook OfSegment(Segment segment, Reading last, DateTimeOffset now)
    {
        var unmoved = last.At - segment.Steps[^1].At;
        if (unmoved > StalledAfter(segment))
            return new(
                RebuildState.Stalled,
                $"Stalled: {Shown(last)} for {Told(unmoved)}, much longer than one step should take.",
                last,
                segment.Steps[^1].At
            );
        if (Left(segment, now) is { } left)
            return new(
                RebuildState.Moving,
                $"{Shown(last)}; {Between(left)} left, right at least {left.Confidence} times in 100.",
                last,
                segment.Readings[0].At,
                left
            );
        return segment.FellBack
            ? new(RebuildState.FellBack, $"Fell back to {Shown(last)}; counted afresh from there.", last, segment.Readings[0].At)
            : new(RebuildState.TooEarly, $"{Shown(last)}; too early to tell.", last, segment.Readings[0].At);
    }

    private static string Between(TimeLeft left) =>
        left.Least > TimeSpan.Zero ? $"between {Told(left.Least)} and {Told(left.Most)}" : $"at most {Told(left.Most)}";

    private TimeLeft? Left(Segment segment, DateTimeOffset now) =>
        TimeLeft.From(segment, FloorOf(segment), now) is { } left && Copies == RebuildCopies.UsedSpace
            ? left with
            {
                Least = TimeSpan.Zero,
            }
            : TimeLeft.From(segment, FloorOf(segment), now);

    private TimeSpan StalledAfter(Segment segment)
    {
        var steps = segment.Steps;
        var moved = steps[^1].Percent - steps[0].Percent ?? 0;
        if (moved <= 0)
            return Longer(Settings.StalledWithoutRate, (Floor() ?? TimeSpan.Zero) / 10); // some bars have no more than ten blocks
        var oneStep = (steps[^1].At - steps[0].At) * (double)(segment.SmallestStep() / moved);
        return Longer(oneStep * Settings.StallFactor, Settings.StalledNoSoonerThan);
    }

    private static TimeSpan Longer(TimeSpan a, TimeSpan b) => a > b ? a : b;

    /// <summary>What writing all of it takes at the drive's rate; null where that is not known, or not all of it is written.</summary>
    private TimeSpan? Floor() =>
        Copies == RebuildCopies.WholeMember && Bytes is { } bytes && MegabytesPerSecond is > 0 and var rate
            ? TimeSpan.FromSeconds(bytes / (rate * 1e6))
            : null;

    /// <summary>
    /// What is left cannot take less than writing it. A floor that the readings themselves have beaten is none: the machine rebuilds
    /// used space only, or the model's rate is wrong.
    /// </summary>
    private TimeSpan FloorOf(Segment segment)
    {
        if (Floor() is not { } whole)
            return TimeSpan.Zero;
        var steps = segment.Steps;
        var moved = (double)(steps[^1].Percent - steps[0].Percent ?? 0) / 100;
        var beaten = moved > 0 && steps[^1].At - steps[0].At < whole * Math.Max(0, moved - (double)segment.SmallestStep() / 100);
        return beaten ? TimeSpan.Zero : whole * (1 - (double)(steps[^1].Percent ?? 0) / 100);
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
