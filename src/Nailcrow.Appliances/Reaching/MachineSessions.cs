using System.Collections.Concurrent;

namespace Nailcrow.Appliances.Reaching;

/// <summary>A session at a machine.</summary>
/// <param name="Token">What is shown with each call.</param>
/// <param name="End">The call that ends it there; null where the machine did not say which session it is.</param>
internal sealed record MachineSession(string Token, Func<HttpRequestMessage>? End);

/// <summary>
/// Sessions at machines, gone on with from one look to the next: a management processor has few, and they take seconds. Those that nobody
/// has use for any more are ended there, so that whoever comes next finds one free.
/// </summary>
internal sealed class MachineSessions(MachineConnections connections) : IAsyncDisposable
{
    // Longer than any machine is left alone that is watched; a machine that is looked at again signs in again.
    private static readonly TimeSpan IdleFor = TimeSpan.FromMinutes(30);

    // A service that is stopped has five seconds for everything.
    private static readonly TimeSpan LeavesWithin = TimeSpan.FromSeconds(1);

    // By what it was begun with: two appliances at one address, or a sign-in that was given anew, are two sessions.
    private readonly ConcurrentDictionary<(string Origin, string Version), Begun> _begun = new();
    private long _swept = Environment.TickCount64;

    private sealed class Begun(Task<MachineSession> session)
    {
        private long _used = Environment.TickCount64;

        public Task<MachineSession> Session => session;

        public bool GoesOn => !session.IsFaulted && !session.IsCanceled;

        public void Used() => Interlocked.Exchange(ref _used, Environment.TickCount64);

        public bool IsIdle(long now) => now - Interlocked.Read(ref _used) > IdleFor.TotalMilliseconds;
    }

    /// <summary>The token of the session there is, or of one that is begun now; one is begun however many ask at once.</summary>
    /// <param name="origin">Where the machine answers.</param>
    /// <param name="version">Of the sign-in: a session that was begun with another one is not gone on with.</param>
    public async Task<string> OfAsync(string origin, string version, Func<Task<MachineSession>> begin, CancellationToken ct)
    {
        Sweep();
        var begun = new TaskCompletionSource<MachineSession>(TaskCreationOptions.RunContinuationsAsynchronously);
        var mine = new Begun(begun.Task);
        while (_begun.AddOrUpdate((origin, version), mine, (_, known) => known.GoesOn ? known : mine) is var there && there != mine)
            try
            {
                there.Used();
                return (await there.Session.WaitAsync(ct)).Token;
            }
            catch (OperationCanceledException) when (!ct.IsCancellationRequested)
            {
                // Whoever began it has left: it is begun anew.
            }
        try
        {
            begun.SetResult(await begin());
        }
        catch (Exception e)
        {
            _begun.TryRemove(new((origin, version), mine));
            begun.SetException(e);
            _ = begun.Task.Exception; // whoever waited sees it; nobody has to have
        }
        return (await begun.Task).Token;
    }

    /// <summary>The machine does not know it any more: it restarted, or it was idle for long.</summary>
    public void Ended(string origin, string version, string token)
    {
        if (
            _begun.TryGetValue((origin, version), out var there)
            && there.Session is { IsCompletedSuccessfully: true, Result.Token: var known }
            && known == token
        )
            _begun.TryRemove(new((origin, version), there));
    }

    /// <summary>Ends all there are, as far as the machines answer in time; the others end theirs by themselves when it was idle.</summary>
    public async ValueTask DisposeAsync()
    {
        using var patience = new CancellationTokenSource(LeavesWithin);
        var left = _begun.Values.ToList();
        _begun.Clear();
        await Task.WhenAll(left.Select(begun => EndAsync(begun, patience.Token)));
    }

    /// <summary>There may be very many machines, and a sign-in that was taken back is asked for by nobody.</summary>
    private void Sweep()
    {
        var now = Environment.TickCount64;
        var before = Interlocked.Read(ref _swept);
        if (now - before < IdleFor.TotalMilliseconds / 2 || Interlocked.CompareExchange(ref _swept, now, before) != before)
            return;
        foreach (var (key, begun) in _begun)
            if (begun.IsIdle(now) && _begun.TryRemove(new(key, begun)))
                _ = EndAsync(begun, CancellationToken.None);
    }

    /// <summary>Never fails: a machine that does not answer ends it by itself.</summary>
    private async Task EndAsync(Begun begun, CancellationToken ct)
    {
        if (begun.Session is not { IsCompletedSuccessfully: true, Result.End: { } end })
            return;
        try
        {
            using var request = end();
            using var answer = await connections.SendAsync(request, ct);
        }
        catch (Exception e) when (e is HttpRequestException or OperationCanceledException or IOException or UnknownCertificateException)
        {
            // It is off, or another machine by now.
        }
    }
}
