namespace Nailcrow.Core.Rebuilds;

/// <summary>When a watch speaks up.</summary>
public sealed record WatchSettings
{
    /// <summary>Age of the last reading after which there is no news. Default 20 minutes; machines are asked every
    /// minute, so this is twenty unanswered calls, and a person asked to look in has had a fair chance to.</summary>
    public TimeSpan NoNewsAfter { get; init; } = TimeSpan.FromMinutes(20);

    /// <summary>How many times longer than one smallest step of the display should take before a rebuild is called
    /// stalled. Default 5: a busy machine slows its rebuild to a third and recovers by itself.</summary>
    public double StallFactor { get; init; } = 5;

    /// <summary>A rebuild is never called stalled sooner than this. Default 10 minutes.</summary>
    public TimeSpan StalledNoSoonerThan { get; init; } = TimeSpan.FromMinutes(10);

    /// <summary>Without any rate to go by, unchanged for this long is stalled. Default 2 hours: one percent of the
    /// largest drives in use takes under half an hour.</summary>
    public TimeSpan StalledWithoutRate { get; init; } = TimeSpan.FromHours(2);
}
