using System.Collections.Concurrent;

namespace Nailcrow.Service.People.StayingIn;

/// <summary>Calls that are being answered, so that they end with what they were let in by.</summary>
internal sealed class RunningCalls
{
    private readonly ConcurrentDictionary<Running, byte> _all = new();

    public IReadOnlyCollection<Running> All => [.. _all.Keys];

    /// <summary>It is over when it is disposed; until then it can be ended.</summary>
    public Running Begin(HttpContext http, Stand stand)
    {
        var running = new Running(this, stand, HttpMethods.IsGet(http.Request.Method), http.RequestAborted);
        http.RequestAborted = running.Ending;
        _all[running] = 0;
        return running;
    }

    public sealed class Running : IDisposable
    {
        private readonly RunningCalls _calls;
        private readonly CancellationTokenSource _ending;
        private long _lostAt;

        public Running(RunningCalls calls, Stand stand, bool reads, CancellationToken aborted) =>
            (_calls, Stand, Reads, _ending) = (calls, stand, reads, CancellationTokenSource.CreateLinkedTokenSource(aborted));

        public Stand Stand { get; }

        /// <summary>It changes nothing, and so nothing of its own caller: a stream, a page.</summary>
        public bool Reads { get; }

        public CancellationToken Ending => _ending.Token;

        /// <summary>
        /// For how long it has been known that what it began as counts no more. A call that takes something away from its own caller, such
        /// as a role or this sign-in, is answered in that time.
        /// </summary>
        public TimeSpan LostFor(long now)
        {
            Interlocked.CompareExchange(ref _lostAt, now, 0);
            return TimeSpan.FromMilliseconds(now - _lostAt);
        }

        /// <summary>It was ended by us, and not by whoever called.</summary>
        public bool WasEnded { get; private set; }

        public void End()
        {
            WasEnded = true;
            try
            {
                _ending.Cancel();
            }
            catch (ObjectDisposedException)
            {
                // It was answered at this very moment.
            }
        }

        public void Dispose()
        {
            _calls._all.TryRemove(this, out _);
            _ending.Dispose();
        }
    }
}
