using System.Collections.Concurrent;

namespace Nailcrow.GivenTime;

/// <summary>A clock that goes as the system's does and can be moved on; what was due meanwhile comes at once.</summary>
public sealed class MovedTime : TimeProvider
{
    private readonly ConcurrentDictionary<MovedTimer, bool> _timers = new();
    private long _moved;

    public override DateTimeOffset GetUtcNow() => System.GetUtcNow() + new TimeSpan(Interlocked.Read(ref _moved));

    public override long GetTimestamp() =>
        System.GetTimestamp() + Interlocked.Read(ref _moved) * (TimestampFrequency / TimeSpan.TicksPerSecond);

    public void Pass(TimeSpan span)
    {
        Interlocked.Add(ref _moved, span.Ticks);
        foreach (var timer in _timers.Keys)
            timer.Passed();
    }

    public override ITimer CreateTimer(TimerCallback callback, object? state, TimeSpan dueTime, TimeSpan period)
    {
        var timer = new MovedTimer(this, callback, state);
        _timers[timer] = true;
        timer.Change(dueTime, period);
        return timer;
    }

    private sealed class MovedTimer : ITimer
    {
        private readonly MovedTime _time;
        private readonly Timer _timer;
        private readonly Lock _lock = new();
        private DateTimeOffset? _due;
        private TimeSpan _period;

        public MovedTimer(MovedTime time, TimerCallback callback, object? state)
        {
            _time = time;
            _timer = new(_ =>
            {
                Rings();
                callback(state);
            });
        }

        public bool Change(TimeSpan dueTime, TimeSpan period)
        {
            lock (_lock)
            {
                (_due, _period) = (dueTime < TimeSpan.Zero ? null : _time.GetUtcNow() + dueTime, period);
                return _timer.Change(dueTime, Timeout.InfiniteTimeSpan);
            }
        }

        public void Passed()
        {
            lock (_lock)
                if (_due is { } due)
                    _timer.Change(due > _time.GetUtcNow() ? due - _time.GetUtcNow() : TimeSpan.Zero, Timeout.InfiniteTimeSpan);
        }

        public void Dispose()
        {
            _time._timers.TryRemove(this, out _);
            _timer.Dispose();
        }

        public ValueTask DisposeAsync()
        {
            _time._timers.TryRemove(this, out _);
            return _timer.DisposeAsync();
        }

        private void Rings()
        {
            lock (_lock)
                if (_period > TimeSpan.Zero)
                    Change(_period, _period);
                else
                    _due = null;
        }
    }
}
