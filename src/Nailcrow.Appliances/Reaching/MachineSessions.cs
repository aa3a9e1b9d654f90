using System.Collections.Concurrent;

namespace Nailcrow.Appliances.Reaching;

/// <summary>Sessions at machines, gone on with from one look to the next: a management processor has few, and they take seconds.</summary>
internal sealed class MachineSessions
{
    private readonly ConcurrentDictionary<string, Begun> _begun = new();

    private sealed record Begun(string Version, Task<string> Token);

    /// <summary>The token of the session there is, or of one that is begun now; one is begun however many ask at once.</summary>
    /// <param name="origin">Where the machine answers.</param>
    /// <param name="version">Of the sign-in: a session that was begun with another one is not gone on with.</param>
    public async Task<string> OfAsync(string origin, string version, Func<Task<string>> begin, CancellationToken ct)
    {
        var begun = new TaskCompletionSource<string>(TaskCreationOptions.RunContinuationsAsynchronously);
        var mine = new Begun(version, begun.Task);
        while (_begun.AddOrUpdate(origin, mine, (_, known) => GoesOn(known, version) ? known : mine) is var there && there != mine)
            try
            {
                return await there.Token.WaitAsync(ct);
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
            _begun.TryRemove(new(origin, mine));
            begun.SetException(e);
            _ = begun.Task.Exception; // whoever waited sees it; nobody has to have
        }
        return await begun.Task;
    }

    /// <summary>The machine does not know it any more: it restarted, or it was idle for long.</summary>
    public void Ended(string origin, string token)
    {
        if (
            _begun.TryGetValue(origin, out var there)
            && there.Token is { IsCompletedSuccessfully: true, Result: var known }
            && known == token
        )
            _begun.TryRemove(new(origin, there));
    }

    private static bool GoesOn(Begun known, string version) =>
        known.Version == version && !known.Token.IsFaulted && !known.Token.IsCanceled;
}
