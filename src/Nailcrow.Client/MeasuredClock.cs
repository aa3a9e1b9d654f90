namespace Nailcrow.Client;

/// <summary>
/// How far this device's clock is behind the service's, measured by the answers: when one was asked for, when it was heard, and the time
/// it bears (<c>Date</c>, RFC 9110 section 6.6.1, in whole seconds). Halfway between asking and hearing is taken for the moment of the
/// answer, so that a measure is wrong by half the way at most, and that of the quickest answer counts. A clock that can be right by it is
/// taken for right: an answer that was long on its way says nothing against it, and would move what its owner writes past what others do.
/// </summary>
internal sealed class MeasuredClock
{
    private static readonly TimeSpan GoodFor = TimeSpan.FromMinutes(10); // what a poor clock loses meanwhile is well under a second
    private static readonly TimeSpan HalfASecond = TimeSpan.FromMilliseconds(500); // a whole second is halfway over

    private volatile Measure? _best;

    /// <summary>In milliseconds, negative where it is ahead; null before the first answer.</summary>
    public long? BehindMs =>
        _best is { } best
            ? best.MayBeRight
                ? 0
                : (long)best.Behind.TotalMilliseconds
            : null;

    public void Heard(DateTimeOffset asked, DateTimeOffset heard, DateTimeOffset? date)
    {
        if (date is not { } shown || heard < asked)
            return;
        var now = new Measure(shown + HalfASecond - (asked + (heard - asked) / 2), heard - asked, heard);
        if (_best is not { } best || now.Way <= best.Way || (heard - best.At).Duration() > GoodFor || now.Contradicts(best))
            _best = now;
    }

    private sealed record Measure(TimeSpan Behind, TimeSpan Way, DateTimeOffset At)
    {
        public bool MayBeRight => Behind.Duration() <= WrongBy;

        private TimeSpan WrongBy => Way / 2 + HalfASecond;

        /// <summary>Both cannot be right: the device's clock was set in between.</summary>
        public bool Contradicts(Measure other) => (Behind - other.Behind).Duration() > WrongBy + other.WrongBy;
    }
}
