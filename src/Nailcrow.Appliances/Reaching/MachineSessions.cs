using System.Collections.Concurrent;

namespace Nailcrow.Appliances.Reaching;

/// <summary>A session at a machine.</summary>
/// <param name="Token">What is shown with each call.</param>
/// <param name="End">The call that ends it there; null where the machine did not say which session it is.</param>
internal sealed record MachineSession(string Token, Func<HttpRequestMessage>? End);

/// <summary>
/// Sessions at machines, gone on with from one look to the next: a management processor has few, and they take seconds. One that another
/// takes the place of is ended there, and all are when the service goes, so that whoever comes next finds one free.
/// </summary>
internal sealed class MachineSessions(MachineConnections connections) : IAsyncDisposable
{
    // A service that is stopped has five seconds for everything.
    private static readonly TimeSpan LeavesWithin = TimeSpan.FromSeconds(1);
    private static readonly TimeSpan EndsWithin = TimeSpan.FromSeconds(30);
    private const int LeavesAtOnce = 64;

    // Two appliances at one address are signed in to each in its own name.
    private readonly ConcurrentDictionary<(string Asset, string Origin), Begun> _begun = new();

    private sealed record Begun(string Version, Task<MachineSession> Session)
    {
        public bool GoesOn(string version) => Version == version && !Session.IsFaulted && !Session.IsCanceled;
    }

    /// <summary>The token of the session there is, or of one that is begun now; one is begun however many ask at once.</summary>
    /// <param name="origin">Where the machine answers.</param>
    /// <param name="version">Of the sign-in: a session that was begun with another one is not gone on with.</param>
    public async Task<string> OfAsync(string asset, string origin, string version, Func<Task<MachineSession>> begin, CancellationToken ct)
    {
        var (at, begun) = ((asset, origin), new TaskCompletionSource<MachineSession>(TaskCreationOptions.RunContinuationsAsynchronously));
        var mine = new Begun(version, begun.Task);
        Begun? before = null;
        while (
            _begun.AddOrUpdate(at, mine, (_, known) => known.GoesOn(version) ? known : Instead(known, out before)) is var there
            && there != mine
        )
            try
            {
                return (await there.Session.WaitAsync(ct)).Token;
            }
            catch (OperationCanceledException) when (!ct.IsCancellationRequested)
            {
                // Whoever began it has left: it is begun anew.
            }
        if (before is not null)
            _ = EndAsync(before, EndsWithin);
        try
        {
            begun.SetResult(await begin());
        }
        catch (Exception e)
        {
            _begun.TryRemove(new(at, mine));
            begun.SetException(e);
            _ = begun.Task.Exception; // whoever waited sees it; nobody has to have
        }
        return (await begun.Task).Token;

        Begun Instead(Begun known, out Begun? replaced)
        {
            replaced = known;
            return mine;
        }
    }

    /// <summary>The machine does not know it any more: it restarted, or it was idle for long.</summary>
    public void Ended(string asset, string origin, string token)
    {
        if (
            _begun.TryGetValue((asset, origin), out var there)
            && there.Session is { IsCompletedSuccessfully: true, Result.Token: var known }
            && known == token
        )
            _begun.TryRemove(new((asset, origin), there));
    }

    /// <summary>Ends all there are, as far as the machines answer in time; the others end theirs by themselves when it was idle.</summary>
    public async ValueTask DisposeAsync()
    {
        var left = _begun.Values.ToList();
        _begun.Clear();
        using var patience = new CancellationTokenSource(LeavesWithin);
        try
        {
            await Parallel.ForEachAsync(
                left,
                new ParallelOptions { MaxDegreeOfParallelism = LeavesAtOnce, CancellationToken = patience.Token },
                async (begun, _) => await EndAsync(begun, LeavesWithin)
            );
        }
        catch (OperationCanceledException)
        {
            // There are more machines than a second has time for.
        }
    }

    private async Task EndAsync(Begun begun, TimeSpan within)
    {
        if (begun.Session is not { IsCompletedSuccessfully: true, Result.End: { } end })
            return;
        try
        {
            using var patience = new CancellationTokenSource(within);
            using var request = end();
            using var answer = await connections.SendAsync(request, patience.Token);
        }
        catch (Exception)
        {
            // It is off, another machine by now, or said something senseless of where its session is: it ends it by itself.
        }
    }
}
