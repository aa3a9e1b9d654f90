namespace Nailcrow.Core.Tickets.Journal;

/// <summary>Times of senders on the clock of the service.</summary>
public static class ServiceClock
{
    /// <summary>What nobody can have seen: there were no such machines, and a device says so whose clock was never set.</summary>
    public static readonly DateTimeOffset Earliest = new(2000, 1, 1, 0, 0, 0, TimeSpan.Zero);

    /// <summary>A time that cannot be told any more, such as one a century past the last, is the nearest that can.</summary>
    public static DateTimeOffset Corrected(DateTimeOffset at, long offsetMs)
    {
        var ms = at.ToUnixTimeMilliseconds() + (Int128)offsetMs;
        var (first, last) = (DateTimeOffset.MinValue.ToUnixTimeMilliseconds(), DateTimeOffset.MaxValue.ToUnixTimeMilliseconds());
        return ms <= first ? DateTimeOffset.MinValue
            : ms >= last ? DateTimeOffset.MaxValue
            : at.ToUniversalTime().AddMilliseconds(offsetMs);
    }
}
